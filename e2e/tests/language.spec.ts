import { expect, faultsOf, test, worksHere } from '../support/fixtures';

test('the language changes in mid-job, without a reload and with nothing lost', async ({ tech, page }) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'one-click', restVolts: [11.85] });
  await expect(page.getByText('11.85 V').first()).toBeVisible();
  let loads = 0;
  page.on('load', () => loads++);
  await tech.tap('This device: settings');
  await page.getByRole('radio', { name: 'Deutsch' }).click();
  await expect(page.getByRole('heading', { name: 'Dieses Gerät' })).toBeVisible();
  await page.getByRole('button', { name: 'Schließen' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Messen', exact: true })).toBeVisible();
  await expect(page.getByText('11,85 V').first()).toBeVisible();
  const german = tech.speaking('de');
  await german.openStage('Scene');
  await german.expectStage('Scene');
  await german.tap('This device: settings');
  await page.getByRole('radio', { name: 'English' }).click();
  await page.getByRole('button', { name: 'Close' }).click();
  await tech.expectStage('Scene');
  expect(loads).toBe(0);
});

test('points and cautions of an unknown machine follow the language in mid-job', async ({ tech, page }) => {
  await tech.at('locate', 'unknown-truck');
  await tech.tap('Points');
  await expect(page.getByRole('button', { name: 'Bare metal of the engine or frame' })).toBeVisible();
  await tech.tap('This device: settings');
  await page.getByRole('radio', { name: 'Deutsch' }).click();
  await page.getByRole('button', { name: 'Schließen' }).click();
  await page.getByRole('group').getByRole('button', { name: 'Punkte' }).click();
  await expect(page.getByRole('button', { name: 'Blankes Metall an Motor oder Rahmen' })).toBeVisible();
  await expect(page.getByText('24 V an eine einzelne Batterie legen.').first()).toBeVisible();
});

test('a start without a server, before the words are there, is told in words', async ({
  browser,
  server,
}) => {
  const context = await browser.newContext({ serviceWorkers: 'block' });
  await worksHere(context);
  const page = await context.newPage();
  const faults = faultsOf(page);
  await page.route('**/api/**', (route) => route.abort());
  await page.route('**/chunk-*.js', async (route) => {
    await new Promise((done) => setTimeout(done, 300));
    await route.continue();
  });
  await page.goto(server.url);
  await expect(page.getByText(/server/).first()).toBeVisible();
  expect(faults).toEqual([]);
  await context.close();
});
