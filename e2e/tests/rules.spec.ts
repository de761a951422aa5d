import { expect, test } from '../support/fixtures';

test('a school that is chosen changes the order of the next hook-up, and safety still outranks it', async ({
  tech,
  page,
}) => {
  await page.goto(`${tech.url}/rules`);
  const first = page.getByRole('radiogroup', { name: 'First red clamp on' });
  await first.getByRole('radio', { name: 'the donor' }).click();
  await expect(first.getByRole('radio', { name: 'the donor' })).toBeChecked();
  await page.getByRole('textbox', { name: 'Tries before thinking again' }).fill('40');
  await page.getByRole('textbox', { name: 'Tries before thinking again' }).press('Tab');
  await expect(page.getByRole('alert')).toContainText('must be between 1 and 10');
  await page.reload();
  await expect(first.getByRole('radio', { name: 'the donor' })).toBeChecked();
  await expect(page.getByText('First red clamp on: the donor')).toBeVisible();

  await tech.at('hookup', 'brinmoor-pella', {
    symptom: 'one-click',
    restVolts: [11.85],
    plan: 'donor-van-1+leads-heavy',
  });
  const steps = await tech.workSteps();
  expect(steps.slice(1, 3)).toEqual(['Red on donor battery +', 'Red on casualty battery +']);
  await page.goto(`${tech.url}/rules`);
  await first.getByRole('radio', { name: 'the casualty' }).click();
  await expect(first.getByRole('radio', { name: 'the casualty' })).toBeChecked();
});

test('a rule that changes while a job is worked is asked about: the job keeps its own until somebody takes the new ones @long', async ({
  tech,
  page,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'one-click', restVolts: [11.85] });
  const job = page.url();
  const change = async (choice: string): Promise<void> => {
    await page.goto(`${tech.url}/rules`);
    const last = page.getByRole('radiogroup', { name: 'Donor engine while connecting' });
    await last.getByRole('radio', { name: choice, exact: true }).click();
    await expect(last.getByRole('radio', { name: choice, exact: true })).toBeChecked();
    await page.goto(job);
  };
  const banner = page.getByText('House rules changed since this job was opened');
  await expect(banner).toHaveCount(0);
  await change('running');
  await expect(banner).toContainText('donor engine while connecting');
  await page.getByRole('button', { name: 'Keep the old ones' }).click();
  await expect(banner).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: 'Work by the new ones' }).click();
  await expect(banner).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(banner).toHaveCount(0);
  await change('off to connect, then runs');
  await expect(banner).toBeVisible();
});

test('a house that wants steps held logs none at a tap @long', async ({ tech, page }) => {
  await page.goto(`${tech.url}/rules`);
  const steps = page.getByRole('radiogroup', { name: 'A step of the clamps is done' });
  await steps.getByRole('radio', { name: 'when held for half a second' }).click();
  await expect(steps.getByRole('radio', { name: 'when held for half a second' })).toBeChecked();
  try {
    await tech.at('plan', 'brinmoor-pella', { symptom: 'one-click', restVolts: [11.85] });
    await tech.take(/Lithium pack/);
    const card = page.locator('vt-step-card h2');
    await expect(card).toHaveText('Everything off, both sides');
    const button = page.locator('vt-next-action button');
    await expect(button).toContainText('Hold: All off');
    await expect(button).not.toHaveAttribute('aria-disabled', 'true');
    await button.click();
    await expect(button).not.toHaveClass(/holding/);
    await expect(card).toHaveText('Everything off, both sides');
    await button.click({ delay: 900 });
    await expect(card).toHaveText('Red on casualty battery +');
    // A hold that begins before the button is armed is none.
    await expect(button).not.toHaveAttribute('aria-disabled', 'true');
    await page.keyboard.down('Enter');
    await expect(card).not.toHaveText('Red on casualty battery +');
    await page.keyboard.up('Enter');
  } finally {
    await page.goto(`${tech.url}/rules`);
    await steps.getByRole('radio', { name: 'at a tap' }).click();
    await expect(steps.getByRole('radio', { name: 'at a tap' })).toBeChecked();
  }
});
