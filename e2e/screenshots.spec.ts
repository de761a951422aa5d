import { randomUUID } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { BrowserContext } from '@playwright/test';
import { expect, test } from './support/fixtures';

const FOLDER = join(import.meta.dirname, '..', 'docs', 'screenshots');

const PDF_SCRIPTS = ['pdf.worker.min.mjs', 'pdf.min.mjs'].map((name) =>
  createRequire(import.meta.url).resolve(`pdfjs-dist/build/${name}`),
);

/** The first page of a PDF as a picture, drawn in a page of its own. */
async function pictureOfPdf(context: BrowserContext, file: string): Promise<Buffer> {
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
  const picture = await page.locator('canvas').screenshot();
  await page.close();
  return picture;
}

/** Several pictures on one, two in a row, each with its name. */
async function shootTogether(
  context: BrowserContext,
  pictures: readonly (readonly [name: string, picture: Buffer])[],
  path: string,
): Promise<void> {
  const page = await context.newPage();
  const cells = pictures.map(
    ([name, picture]) =>
      `<figure><img src="data:image/png;base64,${picture.toString('base64')}"><figcaption>${name}</figcaption></figure>`,
  );
  await page.setContent(
    `<!doctype html><style>body{margin:0;padding:12px;width:1280px;display:grid;grid-template-columns:1fr 1fr;gap:12px;font:16px sans-serif;background:#fff}
     figure{margin:0}img{width:100%;border:1px solid #bbb;box-sizing:border-box}</style>${cells.join('')}`,
  );
  await page.locator('body').screenshot({ path });
  await page.close();
}

/** Takes the pictures of the README from the demo data: `npm run screenshots`. */
test('pictures of the main views', async ({ tech, page }) => {
  test.setTimeout(300_000);
  const picture = async (): Promise<Buffer> => {
    await page.mouse.move(0, 0);
    await page.waitForTimeout(350);
    return page.screenshot();
  };
  const shoot = async (name: string): Promise<void> =>
    writeFile(join(FOLDER, `${name}.png`), await picture());
  const light = (name: string): Promise<void> => page.getByRole('radio', { name }).click();

  const flatAt = async (call: RegExp, volts: string): Promise<void> => {
    await tech.openBoard();
    await page.getByRole('button', { name: call }).click();
    await tech.expectStage('Scene');
    await tech.tap('mains near');
    await tech.toMeasure('rapid clicking');
    await tech.read(volts);
    await tech.openStage('Verdict');
    await page.getByRole('radio', { name: 'Next' }).click();
  };
  const onCharge = async (): Promise<Buffer> => {
    await flatAt(/Hatchback, front bay/, '1190');
    await page.locator('vt-put-on-charge').getByRole('button', { name: 'Put it on' }).first().click();
    const watch = page.getByLabel('Charge under way');
    for (let i = 0; i < 10 && !(await watch.isVisible()); i++) {
      const before = await tech.stepTitle();
      await page.locator('.next').click();
      await expect.poll(() => tech.stepTitle()).not.toBe(before);
    }
    await watch.getByLabel('At its posts, V').fill('13.6');
    await watch.getByLabel('Charger gives, A').fill('12');
    await watch.getByRole('button', { name: 'Note it' }).click();
    return picture();
  };
  const lifted = async (): Promise<Buffer> => {
    // Every battery of the demo's night that is as flat as this is ice: one indoors is not.
    const call = {
      title: 'Hatchback, on the lift',
      placeName: 'Lantern field, shed',
      said: 'Dead since autumn.',
    };
    await page.request.post(`${tech.url}/api/board`, {
      data: { id: randomUUID(), ...call, modelId: 'brinmoor-pella', ambientC: 12, urgent: false },
    });
    await flatAt(/Hatchback, on the lift/, '0280');
    await tech.tap('Lift it, step by step');
    const steps = page.locator('vt-lift');
    for (const done of ['Done', 'Done', 'Joined, black last'])
      await steps.getByRole('button', { name: done }).click();
    await tech.next('A lamp is joined. See how it rises');
    await steps.getByLabel('At its posts, V').fill('350');
    await steps.getByRole('button', { name: 'Note it' }).click();
    return picture();
  };
  const latched = async (): Promise<Buffer> => {
    await tech.openBoard();
    await page.getByRole('button', { name: /Parcel EV/ }).click();
    await tech.safeToWork();
    await tech.openStage('Locate');
    const part = page.locator('vt-latch-part');
    await part.getByRole('button', { name: 'Not here' }).click();
    await part.getByRole('button', { name: 'Try: The latch wires of this model' }).click();
    return picture();
  };

  await tech.openBoard();
  await shoot('board');
  await page.getByRole('button', { name: /Start-stop hatchback/ }).click();
  await tech.expectStage('Scene');
  await shoot('scene');
  await tech.next('Safe to work here');
  await tech.tap('rapid clicking', 'tight', 'out');
  await shoot('checks');
  await tech.next('Go on to Locate');
  await tech.tap('+ mark or P');
  await shoot('locate');
  await tech.tap('meter reads plus');
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
  await tech.next('Crank now');
  await page.waitForTimeout(2500);
  await page.getByLabel(/Lowest volts/).fill('9.9');
  await tech.tap('Slow');
  await page.getByRole('radio', { name: 'Again, as it is' }).waitFor({ timeout: 30_000 });
  await page.waitForTimeout(6000);
  await shoot('crank');
  await page.getByRole('radio', { name: 'Again, as it is' }).click();
  await tech.next('Rest');
  await why('Turned freely, one more.');
  await tech.tap('It runs');
  await tech.next('Consumer is on');
  await tech.next('Donor is stopped');
  await shoot('clear-down');
  await tech.workSteps();
  await tech.next('Read charging volts');
  await tech.read('1421');
  await tech.read('1408');
  await tech.openStage('Verdict');
  await page.getByText('Likeliest causes').waitFor();
  await shoot('verdict');
  await page.getByRole('radio', { name: 'Job sheet' }).click();
  const [sheet] = await Promise.all([page.waitForEvent('download'), tech.tap('Save as PDF')]);
  await writeFile(join(FOLDER, 'job-sheet.png'), await pictureOfPdf(page.context(), await sheet.path()));
  await tech.close('Charge first');
  await page.getByRole('radio', { name: 'Owner' }).click();
  const [forOwner] = await Promise.all([page.waitForEvent('download'), tech.tap('Save the page as PDF')]);
  const ownerPage = await pictureOfPdf(page.context(), await forOwner.path());
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
  const vehicle = await picture();
  await page
    .locator('dd')
    .getByRole('link', { name: /^[A-Z0-9]{6}$/ })
    .click();
  await page.getByRole('img', { name: /readings? of its strength/ }).waitFor();
  await page.waitForTimeout(800);
  const battery = await picture();
  await shootTogether(
    page.context(),
    [
      ['Vehicle', vehicle],
      ['Battery record', battery],
    ],
    join(FOLDER, 'records.png'),
  );
  await page.goto(`${tech.url}/atlas`);
  await page.getByRole('button', { name: /Cornice 9/ }).click();
  await page.getByRole('heading', { name: /Cornice 9/ }).waitFor();
  await shoot('atlas');
  await page.goto(`${tech.url}/bench/leads`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await shoot('bench');
  await page.goto(`${tech.url}/practice/not-the-battery-1`);
  await page.getByRole('radio', { name: 'probes' }).click();
  for (const [probe, place] of [
    ['Red probe on', 'Battery +'],
    ['Black probe on', 'Battery -'],
  ] as const)
    await page.getByRole('radiogroup', { name: probe }).getByRole('radio', { name: place }).click();
  await page.getByRole('button', { name: 'Read', exact: true }).click();
  await page.getByRole('radio', { name: 'key', exact: true }).click();
  await page.getByRole('button', { name: 'Turn the key' }).click();
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
  const charge = await onCharge();
  const lift = await lifted();
  const latch = await latched();
  await shootTogether(
    page.context(),
    [
      ['On charge', charge],
      ['A battery too flat for a charger', lift],
      ['Nothing opens', latch],
      ['For the owner', ownerPage],
    ],
    join(FOLDER, 'beside-the-start.png'),
  );
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
