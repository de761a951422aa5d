import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { BrowserContext } from '@playwright/test';
import { expect, test } from './support/fixtures';

const FOLDER = join(import.meta.dirname, '..', 'docs', 'screenshots');

const PDF_SCRIPTS = ['pdf.worker.min.mjs', 'pdf.min.mjs'].map((name) =>
  createRequire(import.meta.url).resolve(`pdfjs-dist/build/${name}`),
);

/** The first page of a PDF as a picture, drawn in a page of its own. */
async function shootPdf(context: BrowserContext, file: string, path: string): Promise<void> {
  const page = await context.newPage();
  await page.setContent('<canvas></canvas>');
  for (const script of PDF_SCRIPTS) await page.addScriptTag({ path: script, type: 'module' });
  await page.waitForFunction('globalThis.pdfjsLib && globalThis.pdfjsWorker');
  const data = (await readFile(file)).toString('base64');
  await page.evaluate(async (base64) => {
    interface PdfPage {
      getViewport(of: { scale: number }): { width: number; height: number };
      render(to: object): { promise: Promise<void> };
    }
    const { pdfjsLib } = globalThis as unknown as {
      pdfjsLib: {
        getDocument(of: object): { promise: Promise<{ getPage(n: number): Promise<PdfPage> }> };
      };
    };
    const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    const first = await (await pdfjsLib.getDocument({ data: bytes }).promise).getPage(1);
    const viewport = first.getViewport({ scale: 1.4 });
    const canvas = document.querySelector('canvas')!;
    canvas.width = viewport.width;
    canvas.height = viewport.height;
    await first.render({ canvas, canvasContext: canvas.getContext('2d'), viewport }).promise;
  }, data);
  await page.locator('canvas').screenshot({ path });
  await page.close();
}

/** Takes the pictures of the README from the demo data: `npm run screenshots`. */
test('pictures of the main views', async ({ tech, page }) => {
  test.setTimeout(300_000);
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
  await tech.next('Go on to Plan');
  await page.getByRole('radio', { name: /Service van, heavy set/ }).waitFor();
  await expect(page.getByText(/^Searching, /)).toBeHidden({ timeout: 30_000 });
  await shoot('plan');
  await tech.take(/Service van, heavy set/);
  for (const done of ['All off', 'Red clamp is on', 'Red clamp is on', 'Black clamp is on'])
    await tech.next(done);
  await shoot('hook-up-day');
  await page.setViewportSize({ width: 390, height: 844 });
  await page.locator('.cycle').click();
  await shoot('phone');
  await page.locator('.cycle').click();
  await page.locator('.cycle').click();
  await page.setViewportSize({ width: 1280, height: 800 });
  await tech.next('Black clamp is on');
  await tech.next('Donor runs');
  const why = async (reason: string): Promise<void> => {
    await page.getByLabel('Reason, kept in the log').fill(reason);
    await tech.tap('Go on, and log it');
  };
  await tech.next('Waited');
  await why('Volts at the posts climb fast.');
  await tech.next('Go on: crank');
  await tech.next('Crank now');
  await page.waitForTimeout(2500);
  await tech.tap('Slow');
  await page.getByLabel(/Lowest volts/).fill('9.9');
  await tech.next('End the try');
  await page.getByRole('radio', { name: 'Again, as it is' }).waitFor({ timeout: 30_000 });
  await page.waitForTimeout(6000);
  await shoot('crank');
  await page.getByRole('radio', { name: 'Again, as it is' }).click();
  await tech.next('Rest');
  await why('Turned freely, one more.');
  await tech.tap('It runs');
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
  await page.getByText('Likeliest causes').waitFor();
  await shoot('verdict');
  await page.getByRole('radio', { name: 'Job sheet' }).click();
  const [sheet] = await Promise.all([page.waitForEvent('download'), tech.tap('Save as PDF')]);
  await shootPdf(page.context(), await sheet.path(), join(FOLDER, 'job-sheet.png'));
  await tech.close('Charge first');
  await tech.openBoard();
  await page.getByRole('button', { name: /Bread van/ }).click();
  await tech.toMeasure('slow crank');
  await light('Night');
  await page.getByRole('radio', { name: 'Trace' }).click();
  await tech.tap('Capture a crank from the meter');
  await page.getByRole('img', { name: /^Trace of/ }).waitFor({ timeout: 20_000 });
  await page.waitForTimeout(800);
  await shoot('measure-trace');
  await light('Day');
  await page.goto(`${tech.url}/vehicle/kestow-bale-20d-a`);
  await page.getByRole('heading', { name: 'Visits' }).waitFor();
  await shoot('vehicle');
  await page
    .locator('dd')
    .getByRole('link', { name: /^[A-Z0-9]{6}$/ })
    .click();
  await page.getByRole('img', { name: /readings of its strength/ }).waitFor();
  await page.waitForTimeout(800);
  await shoot('battery');
  await page.goto(`${tech.url}/atlas`);
  await page.getByRole('button', { name: /Cornice 9/ }).click();
  await page.getByRole('heading', { name: /Cornice 9/ }).waitFor();
  await shoot('atlas');
  await page.goto(`${tech.url}/bench/leads`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await shoot('bench');
  await page.goto(`${tech.url}/practice/not-the-battery-1`);
  await page.getByRole('radio', { name: 'clamps' }).click();
  await page.getByRole('button', { name: /Service van, Heavy/ }).click();
  for (const [clamp, at] of [
    [/Red, source/, 'Battery +'],
    [/Black, source/, 'Battery -'],
    [/Red, casualty/, 'Battery -'],
    [/Black, casualty/, 'Battery +'],
  ] as const) {
    await page.getByRole('radio', { name: clamp }).click();
    await page.getByText('Put it on').locator('..').getByRole('button', { name: at }).first().click();
    const goOn = page.getByRole('button', { name: 'Go on with it' });
    if (clamp.source.startsWith('Red, cas')) await goOn.click();
  }
  await page.getByRole('alertdialog').waitFor();
  await shoot('practice');
  await page.goto(`${tech.url}/rules`);
  await page.getByRole('radiogroup').first().waitFor();
  await shoot('rules');
  await page.goto(`${tech.url}/kit`);
  await page
    .getByRole('button', { name: /Lithium pack/ })
    .first()
    .click();
  await page.getByRole('dialog').waitFor();
  await shoot('kit');
});
