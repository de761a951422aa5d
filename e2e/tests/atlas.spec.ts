import { readFileSync } from 'node:fs';
import { expect, test } from '../support/fixtures';

/** A one-pixel PNG: small, and a true picture. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test('a machine is found in spite of typing errors, looked at from the side, nearer, and moved', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/atlas`);
  await page.getByRole('searchbox').fill('mistorw');
  await expect(page.getByRole('heading', { name: /Mistrow/ })).toBeVisible();
  await page.getByRole('button', { name: 'Side', exact: true }).click();
  await expect(page.getByRole('img', { name: /Side view, Red latch wire 0.52 m up/ })).toBeVisible();
  await page.getByRole('button', { name: 'Side', exact: true }).click();
  const moved = page.locator('.moved');
  await page.getByRole('button', { name: 'Nearer' }).click();
  await expect(moved).toHaveCSS('transform', /matrix\(1\.4, 0, 0, 1\.4/);
  const before = await moved.evaluate((e) => getComputedStyle(e).transform);
  await page.getByRole('group', { name: /Drawing/ }).press('ArrowDown');
  await expect(moved).not.toHaveCSS('transform', before);
  await page.getByRole('button', { name: 'Fit' }).click();
  await expect(moved).toHaveCSS('transform', 'matrix(1, 0, 0, 1, 0, 0)');
  // A tapped pin is the same point in the list.
  await page.locator('.pin').first().click();
  await expect(page.getByRole('button', { name: /1\. Red latch wire/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  const printed = await page.evaluate(() => {
    let calls = 0;
    window.print = () => calls++;
    document.querySelectorAll<HTMLButtonElement>('vt-machine-drawing .key').forEach((b) => {
      if (b.textContent.trim() === 'Print') b.click();
    });
    return calls;
  });
  expect(printed).toBe(1);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByText('Left front arch: find the pull cord').last()).toBeVisible();
  await expect(page.getByRole('searchbox')).toBeHidden();
});

test('an entry is corrected, shows what cannot be, is confirmed by another, and keeps its history @long', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/atlas`);
  await page.getByRole('searchbox').fill('quillet');
  await expect(page.getByRole('heading', { name: /Quillet/ })).toBeVisible();
  await page.getByRole('button', { name: 'Correct it' }).click();
  const editor = page.getByRole('dialog');
  await expect(editor.getByRole('heading', { level: 1 })).toContainText('Quillet');
  const fromLeft = editor.getByRole('textbox', { name: 'From the left, mm' }).last();
  const was = await fromLeft.inputValue();
  await fromLeft.fill('9000');
  await fromLeft.blur();
  await expect(editor.getByRole('alert')).toContainText('the point lies outside the outline');
  await expect(editor.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
  await fromLeft.fill(was);
  await editor
    .getByRole('textbox', { name: 'Never, one a line' })
    .fill('Leave the cowl lid loose.\nPush it.');
  await editor.getByRole('textbox', { name: 'Why, or where you saw it' }).fill('seen at the weir');
  await expect(editor.getByRole('alert')).toBeHidden();
  await editor.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('found by one of us, not yet seen again')).toBeVisible();
  await expect(page.locator('vt-entry-view').getByText('Never: Push it.')).toBeVisible();
  await page.getByRole('button', { name: 'It is so' }).click();
  await expect(page.getByRole('alert')).toContainText('Somebody else must confirm it');
  await page.getByRole('combobox').first().selectOption({ label: 'Isk' });
  await page.getByRole('button', { name: 'It is so' }).click();
  await expect(page.getByText('found by one, confirmed by another')).toBeVisible();
  const history = page.getByRole('region', { name: 'History' });
  await expect(history.getByRole('listitem')).toHaveCount(3);
  await expect(history).toContainText('seen at the weir');
  await page.locator('vt-entry-view input[type=file]').setInputFiles({
    name: 'notes.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from('no picture'),
  });
  await expect(page.getByRole('alert')).toContainText('That is not a photo');
  await page
    .locator('vt-entry-view input[type=file]')
    .setInputFiles({ name: 'battery.png', mimeType: 'image/png', buffer: PICTURE });
  await expect(page.getByRole('img', { name: 'Photo 1 by Isk' })).toBeVisible();
  // With no network the next one waits on the device.
  await page.context().setOffline(true);
  const reaches = () =>
    page.evaluate(() =>
      fetch('/api/health').then(
        () => true,
        () => false,
      ),
    );
  await expect.poll(reaches).toBe(false);
  await page
    .locator('vt-entry-view input[type=file]')
    .setInputFiles({ name: 'second.png', mimeType: 'image/png', buffer: PICTURE });
  await expect(page.getByText('The photo is kept here. It is sent when the server answers.')).toBeVisible();
  await page.getByText(/no server, 1 kept here since/).click();
  await expect(page.getByRole('dialog').getByText('Photo of a machine')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await page.context().setOffline(false);
  await expect(page.getByText(/no server/)).toHaveCount(0, { timeout: 30_000 });
  await page.reload();
  await page.getByRole('searchbox').fill('quillet');
  await expect(page.getByRole('img', { name: 'Photo 2 by Isk' })).toBeVisible();
});

test('a file shows what it would change, is refused by line, and is imported whole @long', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/atlas`);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV' }).click();
  const csv = readFileSync(await (await download).path(), 'utf8');
  await page.getByRole('button', { name: 'Import' }).click();
  const dialog = page.getByRole('dialog');
  const send = (name: string, text: string) =>
    dialog
      .getByLabel(/File, JSON or CSV/)
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });

  const lines = csv.split('\n');
  const row = lines.findIndex((l) => l.includes('ostrel-fell-450,battery,'));
  await send('wrong.csv', csv.replace(lines[row]!, lines[row]!.replace(',8,', ',=8,')));
  await expect(dialog.getByRole('alert')).toContainText(`Line ${row + 1}`);
  await expect(dialog.getByRole('alert')).toContainText('formula');
  await expect(dialog.getByRole('button', { name: 'Import' })).toBeDisabled();

  await send('cut.csv', csv.slice(0, csv.length - 40));
  await expect(dialog.getByRole('alert')).toContainText(/cut off|cells where/);

  await send('good.csv', csv.replace(lines[row]!, lines[row]!.replace(',8,', ',9,')));
  await expect(dialog.getByRole('status')).toContainText('0 new, 1 changed');
  await expect(dialog.getByText('changes batteries')).toBeVisible();
  await dialog.getByRole('button', { name: 'Import' }).click();
  await expect(dialog.getByRole('status')).toContainText('Imported.');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('searchbox').fill('fell 450');
  await expect(page.getByText(/AGM 9 Ah/)).toBeVisible();
});
