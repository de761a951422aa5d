import { jobIdOf } from '../support/job-id';
import type { JobDetail } from '@voltrek/contracts';
import sharp from 'sharp';
import { expect, test } from '../support/fixtures';

test('a note is written at any stage, waits without network, and stands in the log of the job', async ({
  tech,
  page,
  context,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'one-click', restVolts: [11.85] });
  // Its heading comes in a part of its own, and no service worker keeps that here.
  await expect(page.locator('vt-job-heading')).toBeVisible();
  await context.setOffline(true);
  await tech.tap('Log');
  await page.getByLabel('Note', { exact: true }).fill('plus clamp was loose');
  await tech.tap('Add note');
  const log = page.getByRole('list', { name: 'Log and notes' });
  await expect(log.getByRole('listitem').first()).toContainText('plus clamp was loose');
  await expect(log.getByText('11.85 V')).toBeVisible();
  await page.getByRole('radio', { name: 'notes and photos' }).click();
  await expect(log.getByRole('listitem')).toHaveCount(1);
  await tech.tap('Close');
  await context.setOffline(false);
  await tech.saved();
  await page.reload();
  await tech.openStage('Scene');
  await tech.tap('Log');
  await expect(log.getByText('plus clamp was loose')).toBeVisible();
  await tech.tap('Close');
  await tech.tap('Undo');
  await tech.tap('Log');
  await expect(log.getByRole('listitem').first()).toContainText('taken back');
});

test('a photo taken without network is kept through a reload, then is at the server without its metadata', async ({
  tech,
  page,
  context,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'one-click', restVolts: [11.85] });
  const jobId = /job\/([^/]+)/.exec(page.url())![1]!;
  // Without network for what is sent; the page itself comes again.
  await context.route('**/api/jobs/**', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  );
  const picture = await sharp({ create: { width: 1200, height: 800, channels: 3, background: '#875' } })
    .withExif({ IFD0: { Copyright: 'Somebody' } })
    .jpeg()
    .toBuffer();
  await tech.tap('Log');
  await page
    .locator('vt-add-photo input[type=file]')
    .setInputFiles({ name: 'post.jpg', mimeType: 'image/jpeg', buffer: picture });
  await page.getByLabel('Words for post.jpg').fill('white deposits on plus');
  await tech.tap('Save photo');
  const shown = page.getByRole('img', { name: 'white deposits on plus' });
  await expect(shown).toBeVisible();
  await page.reload();
  await tech.tap('Log');
  await expect(shown).toBeVisible();
  await context.unroute('**/api/jobs/**');
  await page.reload();
  await tech.saved();
  const photo = async () => {
    const job = await page.request.get(`${tech.url}/api/jobs/${jobId}`);
    const { events } = (await job.json()) as JobDetail;
    const added = events.find(({ type }) => type === 'photo.added')!.data as { photoId: string };
    return page.request.get(`${tech.url}/api/jobs/${jobId}/photos/${added.photoId}`);
  };
  await expect.poll(async () => (await photo()).status()).toBe(200);
  const kept = await (await photo()).body();
  expect((await sharp(kept).metadata()).exif).toBeUndefined();
  await tech.tap('Log');
  await expect(shown).toBeVisible();
});

test('another battery than recorded is told in three taps, and everything counts with it', async ({
  tech,
  page,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'slow-crank', restVolts: [12.1] });
  await tech.tap('Another battery');
  await page.getByLabel('Chemistry').selectOption('agm');
  await tech.tap('Save');
  await expect(page.locator('.stage header')).toContainText('battery AGM');
  await tech.saved();
  // It is on the record of the vehicle from now on.
  await tech.openStage('Verdict');
  await page.getByRole('link', { name: 'Battery', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Battery');
  await expect(page.locator('header')).toContainText(['AGM 44 Ah']);
});

test('an act of a colleague on another device is told in one line, and an own one is not', async ({
  tech,
  page,
  browser,
}) => {
  await tech.at('checks', 'brinmoor-pella');
  const jobId = jobIdOf(page);
  const line = page.getByRole('status').filter({ hasText: 'elsewhere' });
  await page.getByRole('button', { name: 'rapid clicking' }).click();
  await expect(page.getByText(/all saved/)).toBeVisible();
  await expect(line).toHaveCount(0);
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  try {
    const other = await context.newPage();
    await other.goto(`${tech.url}/board`);
    await other.getByRole('dialog').getByRole('button', { name: 'Tamsel' }).click();
    await other.goto(`${tech.url}/job/${jobId}/checks`);
    await other.getByRole('button', { name: 'silent, dash dead' }).click();
    await expect(line).toHaveText(/Tamsel, elsewhere: symptom, .*, \d+ s ago/);
  } finally {
    await context.close();
  }
});
