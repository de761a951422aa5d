import type { Locator } from '@playwright/test';
import { expect, test } from '../support/fixtures';

const CASE = 'made~car~interlock~4~3';

test('a case is worked by hand: probes, a slip that is taken back, a hint, a verdict, and the debrief beside the tool @long', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/practice`);
  await page.getByLabel('Code of a case').fill('nowhere-1');
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByText('No case has that code')).toBeVisible();
  await page.getByLabel('Code of a case').fill(CASE);
  await page.getByRole('button', { name: 'Open it' }).click();
  // Nobody reads the fault in its code.
  await expect(page.getByRole('heading', { name: /^Case [a-z2-9]{20,}$/ })).toBeVisible();
  await expect(page).toHaveURL(/practice\/[a-z2-9]{20,}$/);

  // The meter shows what its probes are on, the wrong way round too.
  await page.getByRole('radio', { name: 'probes' }).click();
  const [red, black] = ['Red probe on', 'Black probe on'].map((name) =>
    page.getByRole('radiogroup', { name }),
  );
  const read = page.getByRole('button', { name: 'Read', exact: true });
  await red!.getByRole('radio', { name: 'Battery +' }).click();
  await black!.getByRole('radio', { name: 'Battery -' }).click();
  await read.click();
  const shown = page.locator('.meter .figure');
  await expect(shown).toHaveText(/^1[12]\.\d\d V$/);
  await red!.getByRole('radio', { name: 'Battery -' }).click();
  await black!.getByRole('radio', { name: 'Battery +' }).click();
  await read.click();
  await expect(shown).toHaveText(/^-1[12]\.\d\d V$/);

  // Nothing is forbidden: a spanner slips, time stops, and it is taken back; the risk stays.
  await page.getByRole('radio', { name: 'clamps' }).click();
  await page.getByRole('button', { name: /Service van, Heavy/ }).click();
  await page.getByRole('radio', { name: 'spanner' }).click();
  await page.getByText('Slip to the body').locator('..').getByRole('button', { name: 'Battery +' }).click();
  const consequence = page.getByRole('alertdialog');
  await expect(consequence).toContainText(/\d+ A/);
  await expect(page.getByRole('button', { name: 'Give the verdict' })).toBeDisabled();
  await consequence.getByRole('button', { name: 'Take it back' }).click();
  await expect(consequence).toBeHidden();
  await expect(page.getByText('0 hints, 1 risk run')).toBeVisible();

  await page.getByRole('button', { name: 'Next best step' }).click();
  await expect(page.locator('.hint')).not.toBeEmpty();
  await expect(page.getByText('1 hint, 1 risk run')).toBeVisible();

  // A reload keeps the actions.
  const lines = page.locator('.log li');
  await expect(lines).toHaveCount(3);
  await page.reload();
  await expect(lines).toHaveCount(3);

  await page.getByRole('button', { name: 'Give the verdict' }).click();
  await page.getByRole('radio', { name: 'Replace now' }).click();
  await page.getByRole('button', { name: 'Give it' }).click();
  await expect(page.getByRole('heading', { name: 'Not passed' })).toBeVisible();
  await expect(page.getByText('could have been hurt')).toBeVisible();
  await expect(page.getByText('A sound battery was condemned.')).toBeVisible();
  await expect(
    page.getByRole('heading', { name: 'Steps of the tool' }).locator('..').getByRole('listitem'),
  ).not.toHaveCount(0);
  await page.getByRole('button', { name: 'The same case again' }).click();
  await expect(lines).toHaveCount(1);
  await expect(page.getByText('Nothing yet')).toBeVisible();
});

test('the tool’s advice, followed by keyboard alone, passes a case; the ladder goes on to the next', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/practice/stop-1`);
  const first = page.getByRole('heading', { name: /^Case / });
  await expect(first).toBeVisible();
  const heading = await first.textContent();
  const press = async (name: string | RegExp): Promise<void> => {
    const button = page.getByRole('button', { name, exact: typeof name === 'string' });
    // A button that is not ready takes no focus.
    await expect(button).toBeEnabled();
    await button.focus();
    await page.keyboard.press('Enter');
  };
  const choose = async (group: string, times: number): Promise<void> => {
    await page.getByRole('radiogroup', { name: group }).getByRole('radio').first().focus();
    for (let i = 0; i < times; i++) await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Enter');
  };
  // Stops are looked for before anything else.
  await press('Case');
  await choose('Tool', 1);
  await choose('Red probe on', 0);
  await choose('Black probe on', 1);
  await press('Read');
  await expect(page.locator('.meter .figure')).toBeVisible();
  await press('Give the verdict');
  await page.getByRole('radio', { name: 'Unsafe' }).focus();
  await page.keyboard.press('Enter');
  await press('Give it');
  await expect(page.getByRole('heading', { name: 'Passed', exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Next case' }).click();
  await expect(first).not.toHaveText(heading!);
  await page.getByRole('link', { name: 'To the ladder' }).click();
  const rung = page.getByRole('list', { name: 'The ladder' }).getByRole('listitem');
  await expect(rung.filter({ hasText: 'When to stop' })).toContainText('1 passed');
  // Its skill stands beside the ladder.
  await expect(page.locator('.skill').filter({ hasText: 'When to stop' })).toContainText('1 of 1');
});

test('a made case is the same to whoever is sent its address; one that cannot be is refused', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/practice/made~truck~starter~-6~4711`);
  await expect(page.getByText('truck, 24 V, -6 °C')).toBeVisible();
  const rest = async (): Promise<string> => {
    await page.getByRole('radio', { name: 'probes' }).click();
    await page.getByRole('radiogroup', { name: 'Red probe on' }).getByRole('radio').nth(0).click();
    await page.getByRole('radiogroup', { name: 'Black probe on' }).getByRole('radio').nth(1).click();
    await page.getByRole('button', { name: 'Read', exact: true }).click();
    return (await page.locator('.meter .figure').textContent())!.trim();
  };
  const here = await rest();
  const address = page.url();
  await page.evaluate(() =>
    localStorage.removeItem(Object.keys(localStorage).find((key) => key.includes('made~'))!),
  );
  await page.goto(address);
  expect(await rest()).toBe(here);
  await page.goto(address.replace('truck~starter', 'ev~starter'));
  await expect(page.getByText('No case has that code')).toBeVisible();
});

test('drills of a minute are answered, told right or wrong with their figures, and counted', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/practice`);
  await page.getByRole('link', { name: 'Drills of a minute' }).click();
  const answers = page.locator('.answers .key');
  await expect(page.getByRole('heading', { name: 'Which clamp goes on next?' })).toBeVisible({
    timeout: 20_000,
  });
  await expect(page.locator('vt-circuit')).toBeVisible();
  for (const [kind, asks] of [
    ['Ice', 'May a current go through this battery?'],
    ['Leads', 'Which is the lightest set that starts it?'],
    ['Trace', 'What does this trace show?'],
    ['Stop or go', 'Go on, or stop?'],
  ] as const) {
    await page.getByRole('radio', { name: kind }).click();
    await expect(page.getByRole('heading', { name: asks })).toBeVisible({ timeout: 20_000 });
    await expect(page.getByText(/\d+ s left/)).toBeVisible();
    await answers.first().focus();
    await page.keyboard.press('Enter');
    await expect(answers.filter({ has: page.locator('.bi-check-lg') })).toHaveCount(1);
    await expect(page.getByRole('radio', { name: new RegExp(`${kind} [01] of 1`) })).toBeVisible();
    await expect(answers.first()).toBeDisabled();
  }
  const asked = page.getByRole('radio', { name: /Stop or go/ });
  await page.getByRole('button', { name: 'Next one' }).click();
  await answers.first().click();
  await expect(asked).toContainText('of 2');
  await page.reload();
  await expect(page.getByRole('radio', { name: /Leads [01] of 1/ })).toBeVisible();
});

test('probes and clamps are dragged to points of the drawing, the clamp meter and the hydrometer read by hand, and a slip breaks what it breaks', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/practice/made~car~discharged~-2~5`);
  const drag = async (what: Locator, pin: number): Promise<void> => {
    const [from, to] = [
      await what.boundingBox(),
      await page
        .locator('.pin')
        .filter({ hasText: new RegExp(`^${pin}$`) })
        .locator('.hit')
        .boundingBox(),
    ];
    await page.mouse.move(from!.x + from!.width / 2, from!.y + from!.height / 2);
    await page.mouse.down();
    await page.mouse.move(from!.x + from!.width / 2 + 20, from!.y - 20, { steps: 4 });
    await page.mouse.move(to!.x + to!.width / 2, to!.y + to!.height / 2, { steps: 8 });
    await page.mouse.up();
  };
  const shown = page.locator('.meter .figure');
  const tool = (name: string) => page.getByRole('radio', { name, exact: true }).click();
  await tool('probes');
  await drag(page.getByText('red probe', { exact: true }), 1);
  await expect(shown).toHaveCount(0);
  await drag(page.getByText('black probe', { exact: true }), 2);
  await expect(shown).toHaveText(/^\d+\.\d\d V$/);
  await drag(page.getByText('red probe', { exact: true }), 2);
  await expect(shown).toHaveText(/^-?0\.0\d V$/);

  // A bench that is linked reads the same case, where somebody wants that.
  const volts = async (): Promise<number> => parseFloat((await shown.textContent()) ?? '');
  const own = await volts();
  await page.getByRole('radio', { name: 'linked: Stand-in multimeter' }).click();
  await drag(page.getByText('red probe', { exact: true }), 1);
  await expect.poll(volts).toBeGreaterThan(9);
  expect(own).toBeLessThan(0.1);

  await tool('clamp meter');
  await page.getByRole('radio', { name: "the case's own" }).click();
  await page.getByRole('button', { name: 'the cable of its own minus' }).click();
  await expect(shown).toHaveText(/^-\d\.\d\d A$/);
  await tool('hydrometer');
  await page.getByRole('button', { name: 'cell 3' }).click();
  await expect(shown).toHaveText(/^1\.\d\d\d$/);
  await tool('key');
  await page.getByRole('button', { name: 'Turn the key' }).click();
  await expect(page.getByText('Lamps at the key: go out')).toBeVisible();

  // Joined the wrong way round: time stops with what broke, and it is whole once it is taken back.
  await tool('clamps');
  await page.getByRole('button', { name: /Service van, Heavy/ }).click();
  const goOn = page.getByRole('button', { name: 'Go on with it' });
  await drag(page.getByRole('radio', { name: /^Red, casualty end/ }), 2);
  await goOn.click();
  // The other ends go to points of the donor, which are drawn once such an end is in hand.
  for (const [clamp, pin, place] of [
    ['Red, source end', 1, 'Battery +'],
    ['Black, source end', 2, 'Battery -'],
  ] as const) {
    const end = page.getByRole('radio', { name: clamp });
    await end.click();
    await drag(end, pin);
    await expect(end).toContainText(place);
    await goOn.click();
  }
  const lastEnd = page.getByRole('radio', { name: /^Black, casualty end/ });
  await lastEnd.click();
  await drag(lastEnd, 1);
  const consequence = page.getByRole('alertdialog');
  await expect(consequence).toContainText('Its main fuse has gone.');
  await expect(consequence).toContainText('The diodes of its alternator have gone.');
  await consequence.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('Its main fuse has gone.')).toHaveCount(0);
});
