import { readFile } from 'node:fs/promises';
import { expect, test } from '../support/fixtures';

test('vehicles go out as a file, come back corrected, and a faulty one is told by its line @long', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/vehicles`);
  await page.getByRole('link', { name: 'Files' }).click();
  const row = page.getByRole('listitem', { name: 'vehicles' });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    row.getByRole('link', { name: 'CSV' }).click(),
  ]);
  const csv = await readFile(await download.path(), 'utf8');
  const [names, first] = csv.split('\n');
  const id = first!.split(',')[names!.split(',').indexOf('id')]!;
  await row.getByRole('button', { name: 'Import vehicles' }).click();
  const dialog = page.getByRole('dialog', { name: 'Import vehicles' });
  const send = (text: string): Promise<void> =>
    dialog
      .getByLabel('File, JSON or CSV in UTF-8')
      .setInputFiles({ name: 'vehicles.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });

  await send(csv);
  await expect(dialog.getByRole('status')).toContainText('0 new, 0 changed');
  await expect(dialog.getByRole('button', { name: 'Import' })).toBeDisabled();

  await send(csv.replace(`vehicle,${id}`, 'wagon,odd'));
  await expect(dialog.getByRole('alert')).toContainText('Line 2');
  await expect(dialog.getByRole('alert')).toContainText('row must be one of vehicle');

  const cells = first!.split(',');
  cells[names!.split(',').indexOf('notes')] = 'Keys at the gate house';
  await send(csv.replace(first!, cells.join(',')));
  await expect(dialog.getByRole('status')).toContainText('0 new, 1 changed');
  await dialog.getByRole('button', { name: 'Import' }).click();
  await expect(dialog.getByRole('status')).toContainText('Imported.');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.goto(`${server.url}/vehicle/${id}`);
  await expect(page.getByText('Keys at the gate house')).toBeVisible();
});

test('labels of loose batteries are a PDF with a label for each @long', async ({ page, server }) => {
  await page.goto(`${server.url}/batteries`);
  const rows = page.getByRole('listitem');
  await expect(rows.first()).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Labels, PDF' }).click();
  const pdf = await readFile(await (await download).path());
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  expect(pdf.length).toBeGreaterThan(4000);
});
