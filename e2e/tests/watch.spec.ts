import { expect, test } from '../support/fixtures';

test('before the frost: a forecast lists vehicles worst first, with a cure, by place and as letters', async ({
  tech,
  page,
}) => {
  await tech.openBoard();
  await page.goto(`${tech.url}/vehicles`);
  await page.getByRole('link', { name: 'Before the frost' }).click();
  await page.getByLabel('Place').fill('Skerrow Head');
  await page.getByRole('button', { name: "Week's forecast" }).click();
  await expect(page.getByRole('list', { name: 'Nights to come' }).getByRole('listitem')).toHaveCount(7);
  await expect(page.getByText(/\d+ vehicles of \d+ under 90 in 100/)).toBeVisible();
  const told = await page.locator('.odds').allTextContents();
  const odds = told.map((text) => Number(/\d+/.exec(text)![0]));
  expect(odds.length).toBeGreaterThan(3);
  expect(odds).toEqual([...odds].sort((one, other) => one - other));
  expect(Math.max(...odds)).toBeLessThanOrEqual(90);
  await expect(page.getByText(/\d+ min: then \d+ in 100/).first()).toBeVisible();
  // A mild night lists fewer.
  await page.getByLabel(/Lowest/).fill('8');
  await page.getByLabel(/Lowest/).blur();
  await expect(page.getByText(/of \d+ under 90 in 100|over 90 in 100/)).toBeVisible();
  await expect.poll(() => page.locator('.odds').count()).toBeLessThan(odds.length);
});
