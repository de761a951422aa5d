import { expect, test } from '../support/fixtures';
import { postCall } from '../support/posted-job';

test('the desk sees which van fits a call, and gives it away without taking it', async ({ tech, page }) => {
  const { request } = page;
  const added = await request.post(`${tech.url}/api/crew`, {
    data: { name: 'Dorle', role: 'desk', retired: false },
  });
  expect(added.ok()).toBe(true);
  // A call of its own: other tests work with those of the demo.
  const { title } = await postCall(request, tech.url, 'brinmoor-pella', -4);
  await tech.openBoard();
  await page.getByRole('combobox', { name: 'Who works' }).selectOption('Dorle');
  // A tap on a waiting call opens no job in the name of the desk.
  await page.getByRole('button', { name: new RegExp(title) }).click();
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible();
  await expect(page.getByRole('radio', { name: new RegExp(title) })).toHaveAttribute('aria-checked', 'true');
  const row = page.getByRole('listitem').filter({ hasText: 'Van 2' });
  await expect(row).toContainText(/\d+ in 100 with/);
  await row.getByLabel('Person').selectOption('Tamsel');
  await row.getByLabel('Minutes to get there').fill('25');
  await expect(row).toContainText('there by');
  await row.getByRole('button', { name: /Give it to Van 2/ }).click();
  await expect(page.getByText(/goes to Van 2/)).toBeVisible();
  await page.getByRole('link', { name: 'Board' }).last().click();
  const call = page.getByRole('button', { name: new RegExp(title) });
  await expect(call).toContainText('Tamsel');
  await expect(call).toContainText('promised');
  const board = (await (await request.get(`${tech.url}/api/board`)).json()) as {
    title: string;
    job: unknown;
  }[];
  expect(board.find((one) => one.title === title)!.job).toBeNull();
});
