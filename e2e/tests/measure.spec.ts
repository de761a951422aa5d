import { createServer, type Server, type Socket } from 'node:net';
import { once } from 'node:events';
import { traceFileOf } from '@voltrek/contracts';
import { batteryOhms, type BatteryRating, batteryOpenVolts } from '@voltrek/core/battery';
import { aloneRescue } from '@voltrek/core/circuit';
import type { Engine } from '@voltrek/core/engine';
import { recordTry } from '@voltrek/core/practice';
import { expect, test, worksHere } from '../support/fixtures';
import { TestServer } from '../support/server';
import { Technician } from '../support/technician';

const RATING: BatteryRating = { chemistry: 'flooded', capacityAh: 44, ccaAmps: 420, ccaStandard: 'EN' };
const ENGINE: Engine = { fuel: 'petrol', displacementL: 1.2, cylinders: 4, systemVolts: 12 };

/** A logger's file of a try on a worn battery that did not start. */
function loggedTry(): string {
  const state = { soc: 0.86, tempC: -4, ageing: 2.6 };
  const model = { openVolts: batteryOpenVolts(RATING, state), ohms: batteryOhms(RATING, state) };
  return traceFileOf(
    recordTry({
      crank: {
        engine: ENGINE,
        batteries: [{ rating: RATING, state }],
        seconds: 3,
        rescue: aloneRescue([model], -4),
      },
      restSeconds: 2,
      keyOnAmps: 12,
      keyOnSeconds: 1,
      afterSeconds: 11,
      chargingVolts: null,
      stepSeconds: 0.002,
    }),
  );
}

test('a linked meter reads the machine live: held, taken, and named as the source', async ({
  tech,
  page,
}) => {
  await tech.openBoard();
  await page.getByRole('button', { name: /Hatchback, front bay/ }).click();
  await tech.toMeasure('one click');
  const live = page.locator('.live');
  await expect(live).toContainText('live');
  // The demo's hidden truth: something was left on, so it rests flat.
  await expect
    .poll(async () => Number.parseFloat((await live.locator('.reads').textContent()) ?? ''))
    .toBeGreaterThan(11);
  await tech.tap('Hold');
  await expect(live).toContainText('held');
  const held = (await live.locator('.reads').textContent())!.trim();
  await page.waitForTimeout(600);
  await expect(live.locator('.reads')).toHaveText(held);
  await tech.tap('Take it');
  const taken = page.locator('vt-taken li').first();
  await expect(taken).toContainText('Rest volts');
  await expect(taken).toContainText('meter');
  await expect(taken).toContainText('Charge before judging');

  await page.getByRole('radio', { name: 'Parked draw' }).click();
  await expect(page.locator('.live')).toContainText('mA');
  await tech.tap('Take it');
  await expect(page.locator('vt-taken li').first()).toContainText('Normal for a sleeping vehicle');
});

test('on a phone the live value stands first with its age, and the drawing says where the probes go', async ({
  tech,
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await tech.openBoard();
  await page.getByRole('button', { name: /Hatchback, front bay/ }).click();
  await expect(page).toHaveURL(/\/job\//);
  await tech.openStage('Measure');
  const live = page.locator('.live');
  await expect(live).toContainText(/\d\.\d s old/);
  await expect(live).toBeInViewport({ ratio: 1 });
  await expect(page.getByLabel('Number pad')).toBeHidden();
  const circuit = page.getByRole('complementary', { name: 'Circuit' });
  await expect(circuit).toContainText('Red on 1, black on 2');
  // An earlier reading is not taken for one at these probes: nothing has answered that they are there.
  await page.route('**/api/instruments/probes', () => undefined);
  await page.getByRole('radio', { name: 'Key on' }).click();
  await expect(live).toContainText('probes move');
  await expect(tech.button('Take it')).toBeDisabled();
  await page.unroute('**/api/instruments/probes');
  await page.getByRole('radio', { name: 'Over joints' }).click();
  await expect(circuit).toContainText('Red on 1, black on its cable');
  await expect(tech.button('Take it')).toBeEnabled();
  await tech.tap('Full');
  // A needle for each probe, red a plus and black a bar.
  await expect(page.locator('vt-circuit .needle')).toHaveCount(2);
  await expect(page.locator('vt-circuit .plus-mark')).toHaveCount(1);
  await expect(page.locator('vt-circuit .bar-mark')).toHaveCount(1);
});

test('a crank captured from the meter gives its readings at one tap @long', async ({ tech, page }) => {
  await tech.openBoard();
  await page.getByRole('button', { name: /Bread van/ }).click();
  await tech.toMeasure('slow crank');
  await page.getByRole('radio', { name: 'Trace' }).click();
  await tech.tap('Capture a crank from the meter');
  await expect(page.getByText(/Crank now\. [1-9]/)).toBeVisible();
  await expect(page.getByRole('img', { name: /^Trace of 6000 points/ })).toBeVisible({ timeout: 20_000 });
  for (const name of ['rest', 'inrush minimum', 'crank minimum', 'amps', 'cold-cranking, est.'])
    await expect(page.locator('dt').getByText(name, { exact: true })).toBeVisible();
  await tech.tap(/Take \d readings of it/);
  await page.getByRole('radio', { name: 'At the posts' }).click();
  const taken = page.locator('vt-taken');
  await expect(taken).toContainText('Crank minimum');
  await expect(taken).toContainText('After a try');
  await tech.saved();
});

test('a logger’s file is read whatever its form, and a bad one is named and loses nothing', async ({
  tech,
  page,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'slow-crank', restVolts: [12.52] });
  await page.getByRole('radio', { name: 'Trace' }).click();
  const open = async (name: string, text: string): Promise<void> => {
    await page
      .locator('input[type=file]')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  };
  const csv = loggedTry();
  const lines = csv.split('\n');
  await open('broken.csv', lines.map((l, i) => (i === 300 ? l.replace(',', ',x') : l)).join('\n'));
  await expect(page.getByRole('alert')).toContainText(
    'broken.csv is not taken. Line 301: a figure is missing',
  );
  await open('empty.csv', '');
  await expect(page.getByRole('alert')).toContainText('the file has no rows');

  // Semicolons, decimal commas, milliseconds, no header, and the last line cut off.
  const rows = lines.slice(1, -1).map((l) => l.split(',').map(Number));
  const odd = rows.map(([t, v, a]) =>
    [t! * 1000, v, a].map((x) => x!.toFixed(3).replace('.', ',')).join(';'),
  );
  await open('odd.csv', odd.join('\n').slice(0, -12));
  await expect(page.getByRole('img', { name: /^Trace of \d+ points over 17\.0 s/ })).toBeVisible();
  await expect(page.getByText('Time taken as milliseconds')).toBeVisible();
  await expect(page.getByText('The last line was cut off')).toBeVisible();
  const speed = page.locator('dl > div', { hasText: 'speed' }).locator('dd');
  expect(Number.parseFloat((await speed.textContent())!)).toBeGreaterThan(80);
  await tech.tap(/Take \d readings of it/);
  await page.getByRole('radio', { name: 'At the posts' }).click();
  await expect(page.locator('vt-taken')).toContainText('trace');
  await tech.openStage('Verdict');
  await expect(page.getByText('Crank minimum, against its limit')).toBeVisible();
});

test('a reading that contradicts the log is questioned until a second one says the same', async ({
  tech,
  page,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'slow-crank' });
  await page.getByRole('radio', { name: 'Charging, idle' }).click();
  await tech.read('1440');
  const first = page.locator('vt-taken li').first();
  await expect(first).toContainText('Does it run? Read it again');
  await tech.openStage('Verdict');
  await expect(page.locator('.move', { hasText: 'Charging volts' })).toHaveCount(0);
  await tech.openStage('Measure');
  await page.getByRole('radio', { name: 'Charging, idle' }).click();
  await tech.read('1438');
  await expect(page.locator('vt-taken .doubted')).toHaveCount(0);
  await page.getByRole('radio', { name: 'Rest volts' }).click();
  await tech.read('1330');
  await expect(page.locator('vt-taken li').first()).toContainText('Surface charge');
  await tech.tap('Withdraw');
  await expect(page.locator('vt-taken')).not.toContainText('Surface charge');
});

test('the weather service fills in the cold', async ({ tech, page }) => {
  await tech.at('scene', 'brinmoor-pella');
  const told = page.getByRole('button', { name: /^service: / });
  await expect(told).toBeVisible();
  const degrees = /(-?\d+) °C/.exec((await told.textContent()) ?? '')![1]!;
  await told.click();
  await expect(page.getByRole('group', { name: 'Air, °C' }).getByRole('status').first()).toHaveText(degrees);
});

test('a crew lead links a meter; one that goes is shown as lost, comes back, and the pad works all the while @long', async ({
  browser,
}) => {
  const sockets = new Set<Socket>();
  const meter = (): Server =>
    createServer((socket) => {
      sockets.add(socket);
      socket.on('error', () => socket.destroy());
      socket.on('data', (data) => {
        for (const line of data.toString().split('\n').filter(Boolean)) {
          if (line === '*IDN?') socket.write('Any,Any meter,1,1\n');
          else if (line.endsWith('?')) socket.write('+1.24560000E+01\n');
        }
      });
    });
  let line = meter().listen(0, '127.0.0.1');
  await once(line, 'listening');
  const { port } = line.address() as { port: number };
  // The settings of the server name a clamp, so no stand-in plays.
  const settings = { VOLTREK_CLAMP: `127.0.0.1:${port}`, VOLTREK_INSTRUMENT_NETWORKS: '127.0.0.0/8' };
  const server = await TestServer.ofDemo();
  const page = await browser.newPage();
  await worksHere(page.context());
  try {
    await server.startWith(settings);
    await page.goto(`${server.url}/kit`);
    const links = page.getByRole('region', { name: 'Linked instruments' });
    const address = links.getByLabel('Address of the Meter');
    const meterLine = links.getByRole('listitem').filter({ hasText: /^Meter/ });
    await expect(meterLine).toContainText('not linked');
    await expect(links.getByRole('listitem').filter({ hasText: /^Clamp/ })).toContainText(
      'settings of the server',
    );
    await address.fill('10.0.0.9:5025');
    await address.press('Enter');
    await expect(links.getByRole('alert')).toContainText('only be in these networks: 127.0.0.0/8');
    await address.fill(`127.0.0.1:${port}`);
    await address.press('Enter');
    await expect(meterLine).toContainText('live, Any meter');
    await expect(links.getByRole('alert')).toHaveCount(0);
    const tech = new Technician(page, server.url);
    await tech.at('measure', 'brinmoor-pella', { symptom: 'slow-crank' });
    await expect(page.locator('.reads')).toHaveText('12.456 V');
    line.close();
    for (const socket of sockets) socket.destroy();
    await expect(page.locator('.live')).toContainText('lost, trying again');
    await expect(tech.button('Take it')).toBeDisabled();
    await tech.read('1247');
    await expect(page.locator('vt-taken li').first()).toContainText('12.47 V');
    line = meter().listen(port, '127.0.0.1');
    await expect(page.locator('.live')).toContainText('live');
    // No weather service is named beside a real meter.
    await tech.openStage('Scene');
    await expect(page.getByText('No weather service is linked')).toBeVisible();
    // Taken away, it is read no more.
    await page.goto(`${server.url}/kit`);
    await meterLine.getByRole('button', { name: 'Unlink' }).click();
    await expect(meterLine).toContainText('not linked');
    await page.getByLabel('Who works').selectOption({ label: 'Tamsel' });
    await expect(address).toHaveCount(0);
  } finally {
    await page.close();
    await server.remove();
    for (const socket of sockets) socket.destroy();
    line.close();
  }
});
