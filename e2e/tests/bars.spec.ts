import { expect, test } from '../support/fixtures';

test('a frozen battery is refused alike at every stage, by no word taken back, until it reads otherwise', async ({
  tech,
  page,
}) => {
  await tech.at('measure', 'brinmoor-pella', { ambientC: -8, symptom: 'one-click', restVolts: [9.0] });
  await tech.expectStage('Stop');
  await expect(tech.button('It no longer stands')).toHaveCount(0);
  for (const stage of ['Plan', 'Hook up', 'Crank']) {
    await tech.openStage(stage);
    await tech.expectStage('Stop');
    await expect(page.getByRole('heading', { name: 'Battery frozen' })).toBeVisible();
  }
  await tech.openStage('Verdict');
  await tech.expectStage('Verdict');
  await expect(page.getByText(/it is frozen: no current may go through it/)).toBeVisible();
  await tech.openStage('Plan');
  await tech.tap('Read it again');
  await tech.expectStage('Measure');
  await page.getByRole('radio', { name: 'Rest volts' }).click();
  await tech.read('1255');
  await tech.openStage('Plan');
  await tech.expectStage('Plan');
});

test('a guard lamp that stays dark is explained by what was read, and one that warns stops the hook-up @long', async ({
  tech,
  page,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'rapid-click', restVolts: [11.5] });
  await tech.openStage('Plan');
  await tech.take(/Lithium pack/);
  await tech.workSteps(/Lamp is right/);
  await tech.tap('It stays dark');
  await expect(page.getByText('The battery reads 11.50 V. That is enough for a guard')).toBeVisible();
  await tech.tap('It warns');
  await expect(page.getByRole('heading', { name: 'Polarity not established' })).toBeVisible();
  await expect(page.locator('.next')).not.toContainText('Lamp is right');
});
