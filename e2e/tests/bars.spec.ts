import { expect, test } from '../support/fixtures';

test('a frozen battery is refused alike on Measure, Plan and Verdict, also when its stop was taken back', async ({
  tech,
  page,
}) => {
  await tech.openJob('brinmoor-pella', -8);
  await tech.toMeasure('one click');
  await tech.read('900');
  await tech.openStage('Plan');
  await tech.expectStage('Stop');
  await tech.tap('It no longer stands');
  await page.getByLabel('Reason, kept in the log').fill('it sounds liquid');
  await tech.tap('Go on, and log it');
  await tech.expectStage('Plan');
  const refused = page.getByText('no charge, no crank, nothing joined');
  await expect(refused.first()).toBeVisible();
  await expect(page.getByRole('radio', { name: /Service van/ })).toHaveCount(0);
  await tech.openStage('Verdict');
  await tech.expectStage('Verdict');
  await expect(page.getByText(/it is frozen: no current may go through it/)).toBeVisible();
});
