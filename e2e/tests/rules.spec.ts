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

  await tech.openJob('brinmoor-pella');
  await tech.toMeasure('one click');
  await tech.read('1185');
  await tech.next('Go on to Plan');
  await tech.take(/Service van, heavy set/);
  const steps = await tech.workSteps(/Go on/);
  expect(steps.slice(1, 3)).toEqual(['Red on donor battery +', 'Red on casualty battery +']);
  await page.goto(`${tech.url}/rules`);
  await first.getByRole('radio', { name: 'the casualty' }).click();
  await expect(first.getByRole('radio', { name: 'the casualty' })).toBeChecked();
});
