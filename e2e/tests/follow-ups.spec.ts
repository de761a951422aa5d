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
  await page.getByRole('button', { name: 'Done' }).first().click();
  await expect(rows).toHaveCount(count - 1);
  await page.reload();
  await expect(rows).toHaveCount(count - 1);
  await rows.first().getByRole('link').first().click();
  await expect(page.getByRole('heading', { level: 1, name: 'Verdict' })).toBeVisible();
});

test('a charge that was promised is opened as a job on the same vehicle @long', async ({ tech, page }) => {
  const title = await tech.at('measure', 'brinmoor-pella', {
    ambientC: 8,
    scene: { mainsNear: true },
    symptom: 'rapid-click',
    restVolts: [11.8],
  });
  await tech.openStage('Verdict');
  await tech.close('Charge first');
  await tech.saved();
  await page.goto(`${tech.url}/follow-ups`);
  const row = page.getByRole('listitem').filter({ hasText: title }).filter({ hasText: 'Charge' });
  await row.getByRole('button', { name: 'Charge it: open a job' }).click();
  await tech.expectStage('Scene');
  await expect(page.getByText(`Charge: ${title}`)).toBeVisible();
  await tech.tap('mains near');
  await tech.toMeasure('rapid clicking');
  await tech.read('1190');
  await tech.openStage('Plan');
  await expect(
    page.locator('vt-put-on-charge').getByRole('heading', { name: 'Or leave it on a charger here' }),
  ).toBeVisible();
});

test('a recheck is read on the closed job: charged and rested, it gives the final verdict, and its promises @long', async ({
  tech,
  page,
}) => {
  const title = await tech.at('measure', 'brinmoor-pella', { symptom: 'rapid-click', restVolts: [11.5] });
  await tech.openStage('Verdict');
  await tech.close('Charge first');
  await page.getByRole('radio', { name: 'Recheck' }).click();
  // Before it is charged and rested nothing is asked.
  await expect(page.getByLabel('Rest, V')).toHaveCount(0);
  await tech.tap('Charged to full, then stood 24 h');
  await page.getByLabel('Rest, V').fill('4000');
  await expect(page.getByRole('alert')).toContainText('Rest volts');
  await page.getByLabel('Rest, V').fill('1262');
  await page.getByLabel('Tested, % of rating').fill('42');
  await page.getByLabel('Lowest while it cranks, V').fill('78');
  await expect(page.getByRole('button', { name: 'Give the final verdict: Replace now' })).toBeVisible();
  // A sound one keeps its place: the verdict follows what is read.
  await page.getByLabel('Tested, % of rating').fill('93');
  await page.getByLabel('Lowest while it cranks, V').fill('103');
  await tech.tap('Give the final verdict: Keep');
  await expect(page.getByRole('heading', { level: 2, name: 'Keep' })).toBeVisible();
  await expect(page.getByText('final, after the recheck')).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Recheck' })).toHaveCount(0);
  await tech.saved();
  await page.goto(`${tech.url}/follow-ups`);
  await expect(
    page.getByRole('listitem').filter({ hasText: title }).filter({ hasText: 'Recheck' }),
  ).toHaveCount(0);
  await expect(
    page.getByRole('listitem').filter({ hasText: title }).filter({ hasText: 'Inspect' }),
  ).toHaveCount(1);
  await page.goto(`${tech.url}/log`);
  await expect(page.getByRole('listitem').filter({ hasText: title })).toContainText('Keep');
});
