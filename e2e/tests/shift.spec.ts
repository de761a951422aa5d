import { expect, test } from '../support/fixtures';
import { postCall } from '../support/posted-job';

test('a shift is given over and taken over, each under their own name, and is a PDF', async ({
  tech,
  page,
}) => {
  const { title } = await postCall(page.request, tech.url, 'brinmoor-pella', -4);
  await tech.openBoard();
  await page.goto(`${tech.url}/log`);
  await page.getByRole('link', { name: "Shift's end" }).click();
  await expect(page.getByRole('listitem').filter({ hasText: title })).toContainText('waits');
  await page.getByLabel('For the next shift').fill('Van 2 pulls to the left.');
  await page.getByRole('button', { name: 'Give the shift over' }).click();
  await expect(page.getByText(/Brannoch gave it over/)).toBeVisible();
  await expect(page.getByRole('button', { name: /Take it over/ })).toHaveCount(0);
  await page.getByRole('combobox', { name: 'Who works' }).selectOption('Tamsel');
  await page.getByRole('button', { name: 'Take it over as Tamsel' }).click();
  await expect(page.getByText(/Tamsel took it over/)).toBeVisible();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'PDF' }).click();
  expect((await saved).suggestedFilename()).toMatch(/^shift-\d{4}-\d\d-\d\d\.pdf$/);
});
