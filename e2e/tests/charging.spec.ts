import { expect, test } from '../support/fixtures';

test('a flat battery is put on charge from the verdict, watched, shown on the board, and taken off before anything else @long', async ({
  tech,
  page,
}) => {
  const title = await tech.at('measure', 'brinmoor-pella', {
    ambientC: 8,
    scene: { mainsNear: true },
    symptom: 'rapid-click',
    restVolts: [11.9],
  });
  await tech.openStage('Verdict');
  await page.getByRole('radio', { name: 'Next' }).click();
  const here = page.locator('vt-put-on-charge');
  await expect(here).toContainText('Mains charger, 15 A');
  await expect(here).toContainText(/set 4.4 A: \d+ h in this cold/);
  await here.getByRole('button', { name: 'Put it on' }).click();

  await tech.expectStage('Hook up');
  // Set, red, black, and only then the plug.
  const titles: string[] = [];
  for (let i = 0; i < 8 && (await page.getByLabel('Charge under way').count()) === 0; i++) {
    const before = await tech.stepTitle();
    titles.push(before ?? '');
    await page.locator('.next').click();
    await expect.poll(() => tech.stepTitle()).not.toBe(before);
  }
  const at = (word: RegExp): number => titles.findIndex((t) => word.test(t));
  expect(at(/red/i)).toBeGreaterThanOrEqual(0);
  expect(at(/plug the charger in/i)).toBeGreaterThan(at(/black/i));

  const watch = page.getByLabel('Charge under way');
  await expect(watch).toContainText('full about');
  const note = async (volts: string, amps: string): Promise<void> => {
    await watch.getByLabel('At its posts, V').fill(volts);
    await watch.getByLabel('Charger gives, A').fill(amps);
    await watch.getByRole('button', { name: 'Note it' }).click();
  };
  await watch.getByLabel('At its posts, V').fill('13.6');
  await watch.getByLabel('Charger gives, A').fill('400');
  await expect(watch.getByRole('alert')).toContainText('Amps must be between');
  await expect(watch.getByRole('button', { name: 'Note it' })).toBeDisabled();
  await note('13.6', '4.4');
  await expect(watch).toContainText(/Charging\s*Still \d+(\.\d)? h at these amps/);
  await note('14.4', '0.4');
  await expect(watch).toContainText('Full far too soon');
  await watch.getByRole('button', { name: 'Note as found: full at once' }).click();
  await expect(watch.getByRole('button', { name: /Note as found/ })).toHaveCount(0);
  await tech.saved();

  await tech.openBoard();
  await page.getByRole('radio', { name: 'on charge' }).click();
  const row = page.getByRole('button', { name: title });
  await expect(row).toContainText(/on charge until \d\d:\d\d/);
  await row.click();

  // Never cranked with it on.
  await tech.openStage('Crank');
  await expect(page.locator('.next')).toContainText('Take the charger off first');
  await tech.openStage('Hook up');
  await expect(watch).toContainText('0.4 A');
  await tech.openStage('Clear down');
  await tech.workSteps(/Charged/);
  // The rest volts of before are no longer its own.
  await tech.openStage('Crank');
  await expect(page.locator('.next')).toContainText('Read the rest volts again');
  await tech.saved();
  await tech.openBoard();
  await page.getByRole('radio', { name: 'on charge' }).click();
  await expect(page.getByRole('button', { name: title })).toHaveCount(0);
});

test('a battery is put on charge from Plan, where a socket is near', async ({ tech, page }) => {
  await tech.at('plan', 'brinmoor-pella', { ambientC: 8, symptom: 'rapid-click', restVolts: [11.9] });
  const here = page.locator('vt-put-on-charge');
  await expect(page.getByRole('radiogroup', { name: 'Ways to get it going, soonest first' })).toBeVisible();
  await expect(here.getByRole('heading')).toHaveCount(0);
  await tech.openStage('Scene');
  await tech.tap('mains near');
  await tech.openStage('Plan');
  await expect(here.getByRole('heading', { name: 'Or leave it on a charger here' })).toBeVisible();
  await here.getByRole('button', { name: 'Put it on' }).first().click();
  await tech.expectStage('Hook up');
  await expect(page.locator('vt-step-card')).toBeVisible();
});

test('a battery that no charger would take is lifted first, from Plan, through a reload, and read again', async ({
  tech,
  page,
}) => {
  await tech.at('measure', 'brinmoor-pella', {
    ambientC: 12,
    scene: { mainsNear: true },
    symptom: 'rapid-click',
    restVolts: [2.8],
  });
  await expect(page.locator('vt-lift')).toContainText('lift it first');
  await tech.openStage('Plan');
  const lift = page.locator('vt-lift');
  await tech.tap('Lift it, step by step');
  await expect(lift).toContainText('Prove its polarity twice');
  await lift.getByRole('button', { name: 'Done' }).click();
  await expect(lift).toContainText('look at its case');
  await lift.getByRole('button', { name: 'Done' }).click();
  await expect(lift).toContainText(/\d\.\d A, and \d+ A for a moment while the lamp is cold/);
  await lift.getByRole('button', { name: 'Joined, black last' }).click();
  // Nothing is planned beside a lamp that is joined.
  await tech.next('A lamp is joined. See how it rises');
  await tech.expectStage('Measure');
  await page.reload();
  await expect(lift.getByRole('timer')).toBeVisible();
  await expect(page.locator('vt-number-pad')).toBeHidden();
  await page.keyboard.press('m');
  await expect(page.getByRole('dialog')).toContainText('Lamp is off, black first');
  await page.keyboard.press('Escape');
  await lift.getByLabel('At its posts, V').fill('860');
  await lift.getByRole('button', { name: 'Note it' }).click();
  await expect(lift).toContainText('Over the sense voltage');
  await tech.next('Lamp is off, black first');
  // It opens on the rest volts again: those of before are the flat battery's.
  await tech.read('1120');
  await tech.openStage('Verdict');
  await page.getByRole('radio', { name: 'Next' }).click();
  await expect(page.locator('vt-put-on-charge').getByRole('button', { name: 'Put it on' })).toBeEnabled();
});
