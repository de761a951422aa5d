import { join } from 'node:path';
import { test } from './support/fixtures';

const FOLDER = join(import.meta.dirname, '..', 'docs', 'screenshots');

/** Takes the pictures of the README from the demo data: `npm run screenshots`. */
test('pictures of the main views', async ({ tech, page }) => {
  test.setTimeout(120_000);
  const shoot = async (name: string): Promise<void> => {
    await page.mouse.move(0, 0);
    await page.waitForTimeout(350);
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
  };
  const light = (name: string): Promise<void> => page.getByRole('radio', { name }).click();

  await tech.openBoard();
  await shoot('board');
  await page.getByRole('button', { name: /Start-stop hatchback/ }).click();
  await tech.expectStage('Scene');
  await shoot('scene');
  await tech.next('Safe to work here');
  await tech.tap('rapid clicking', 'tight', 'out');
  await shoot('checks');
  await tech.next('Go on to Locate');
  await tech.tap('+ mark or P', 'meter reads plus');
  await shoot('locate');
  await tech.next('Found, positive is sure');
  await tech.read('1180');
  await shoot('measure');
  await tech.next('Go on to Plan');
  await page.locator('.odds strong').waitFor();
  await page.waitForTimeout(800);
  await shoot('plan');
  await tech.take(/The van, heavy set/);
  for (const done of ['All off', 'Red clamp is on', 'Red clamp is on', 'Black clamp is on'])
    await tech.next(done);
  await shoot('hook-up-day');
  await light('Night');
  await shoot('hook-up-night');
  await page.setViewportSize({ width: 390, height: 844 });
  await shoot('hook-up-phone');
  await page.setViewportSize({ width: 1280, height: 800 });
  await light('Day');
  await tech.next('Black clamp is on');
  await tech.next('Donor runs');
  await tech.tap('Make safe');
  await shoot('make-safe');
  await tech.tap('Back to the job');
  await tech.next('Waited');
  await tech.next('Go on: crank');
  await tech.next('Crank now');
  await tech.tap('It runs');
  await page.waitForTimeout(1200);
  await shoot('crank');
  await tech.next('End the try');
  await tech.next('Go on to Clear down');
  await tech.next('Consumer is on');
  await tech.next('Donor is stopped');
  await shoot('clear-down');
  await tech.workSteps(/Go on/);
  await tech.tap('Read charging volts');
  await tech.read('1421');
  await tech.read('1408');
  await tech.openStage('Verdict');
  await shoot('verdict');
  await tech.close('Recheck');
  await tech.openBoard();
  await page.getByRole('button', { name: /Harbour dinghy/ }).click();
  await tech.tap('Fuel smell or spill');
  await tech.openStage('Hook up');
  await shoot('stop');
  await page.goto(`${tech.url}/atlas`);
  await page.getByRole('button', { name: /Cornice 9/ }).click();
  await shoot('atlas');
  await page.goto(`${tech.url}/log`);
  await page.getByRole('link').nth(6).waitFor();
  await shoot('log');
});
