import { readFileSync } from 'node:fs';
import { expect, test } from '../support/fixtures';

test('what verdicts promised is listed by its day, ticked off, and goes into a calendar', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/log`);
  await page.getByRole('link', { name: 'Follow-ups' }).click();
  const status = page.getByRole('status');
  await expect(status).toContainText(/[1-9]\d* to do/);
  const rows = page.getByRole('listitem');
  const count = await rows.count();
  expect(count).toBeGreaterThan(1);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Calendar file' }).click();
  const calendar = readFileSync(await (await download).path(), 'utf8');
  expect(calendar.match(/BEGIN:VEVENT/g)).toHaveLength(count);
  await rows.first().getByRole('button', { name: 'Done' }).click();
  await expect(rows).toHaveCount(count - 1);
  await page.reload();
  await expect(rows).toHaveCount(count - 1);
  await rows.first().getByRole('link').click();
  await expect(page.getByRole('heading', { level: 1, name: 'Verdict' })).toBeVisible();
});
