import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { machineMs } from './machine-speed.mjs';
import { freePort, ROOT } from './steps.mjs';

/** The processor of the browser is slowed so many times, as in a tablet of the van. */
const SLOWED = 4;
/** A stage is opened so often on a page of its own, whose first tap meets cold code; and so many taps each time. */
const PAGES = 4;
const TAPS = 6;
const HOOKUP_STEPS = 4;
const HOOKUPS = 6;
const STARTS = 10;
const PLANS = 20;
const STAGE_CHANGES = [20, 200];
const STAGES = ['scene', 'checks', 'locate', 'measure', 'plan', 'hookup', 'crank', 'cleardown', 'verdict'];

/** The parts of a page by the browser's names; requests to the server are data. */
const PAGE_PARTS = ['Document', 'Script', 'Stylesheet', 'Font', 'Image', 'Manifest', 'Other'];

const sorted = (list) => [...list].sort((a, b) => a - b);
const share = (list, of) => sorted(list)[Math.min(list.length - 1, Math.floor(list.length * of))];
const print = (name, text) => process.stdout.write(`${name.padEnd(38)} ${text}\n`);
const told = (list) =>
  `median ${Math.round(share(list, 0.5))} ms, 95th percentile ${Math.round(share(list, 0.95))} ms, most ${Math.round(Math.max(...list))} ms of ${list.length}`;

/** How the interface feels in Chromium with a slowed processor: weight, starts, taps, stages, and what stays in memory. */
export async function benchWeb() {
  const sayMachine = () => print('this machine, a fixed piece of work', `${Math.round(machineMs())} ms`);
  sayMachine();
  const folder = mkdtempSync(join(tmpdir(), 'voltrek-bench-web-'));
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const server = spawn(process.execPath, [`${ROOT}/server/dist/src/main.js`, '--port', String(port)], {
    env: { ...process.env, VOLTREK_DATA: folder, VOLTREK_LOG: 'silent' },
  });
  await new Promise((ready) =>
    server.stdout.on('data', (said) => String(said).includes('is ready') && ready()),
  );
  const browser = await chromium.launch({
    executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--enable-precise-memory-info'],
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.addInitScript(() => localStorage.setItem('voltrek.crew', 'crew-1'));
    const page = await context.newPage();
    const devtools = await context.newCDPSession(page);
    await devtools.send('Network.enable');
    await devtools.send('Performance.enable');

    const typeOf = new Map();
    const bytes = { page: 0, data: 0 };
    devtools.on('Network.responseReceived', ({ requestId, type }) => typeOf.set(requestId, type));
    const weigh = ({ requestId, encodedDataLength }) => {
      bytes[PAGE_PARTS.includes(typeOf.get(requestId)) ? 'page' : 'data'] += encodedDataLength;
    };
    devtools.on('Network.loadingFinished', weigh);
    const board = () => page.getByRole('heading', { level: 1, name: 'Board' }).waitFor();
    await page.goto(`${url}/board`);
    await board();
    await page.locator('.call').first().waitFor();
    devtools.off('Network.loadingFinished', weigh);
    print(
      'first page, over the wire',
      `${Math.round(bytes.page / 1000)} kB, and ${Math.round(bytes.data / 1000)} kB of data`,
    );

    print(
      'the whole application on the device',
      `${Math.round(await takenInMs(page))} ms after its first page`,
    );
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
    const starts = [];
    for (let i = 0; i < STARTS; i++) {
      const from = performance.now();
      await page.reload();
      await page.locator('.call').first().waitFor();
      starts.push(performance.now() - from);
    }
    print('start from cache to a usable Board', told(starts));

    const jobId = await openJob(page, url);
    const open = async (stage, id = jobId) => {
      await page.goto(`${url}/job/${id}/${stage}`);
      await page.locator('#stage-title').waitFor();
    };
    await page.addInitScript(() => {
      globalThis.taps = [];
      globalThis.tasks = [];
      new PerformanceObserver((list) => {
        for (const e of list.getEntries())
          if (e.name === 'click' && e.interactionId) globalThis.taps.push(e.duration);
      }).observe({ type: 'event', durationThreshold: 16, buffered: true });
      new PerformanceObserver((list) => {
        for (const e of list.getEntries()) globalThis.tasks.push(e.duration);
      }).observe({ type: 'longtask', buffered: true });
    });
    const press = (locator) => pressAt(page, locator);
    const tapped = async (locator, { taps = TAPS, every = 150, settle = 1500 } = {}) => {
      await page.waitForTimeout(settle);
      await page.evaluate(() => (globalThis.taps.length = 0));
      for (let i = 0; i < taps; i++) {
        await press(locator(i));
        await page.waitForTimeout(every);
      }
      const seen = await page.evaluate(() => globalThis.taps);
      // Quicker than the browser tells.
      return [...seen, ...Array.from({ length: Math.max(0, taps - seen.length) }, () => 8)];
    };
    const named = (name) => () => page.getByRole('button', { name, exact: true });
    const next = page.locator('.next');
    const digit = () => page.getByLabel('Number pad').getByRole('button', { name: '1', exact: true });
    const tappedThere = {
      scene: named('sloping'),
      checks: named('slow crank'),
      locate: named('meter reads plus'),
      measure: digit,
    };
    for (const [stage, locator] of Object.entries(tappedThere)) {
      const all = [];
      for (let i = 0; i < PAGES; i++) {
        await open(stage);
        all.push(...(await tapped(locator)));
      }
      print(`tap to paint, ${stage}`, told(all));
    }
    const plans = [];
    const hookups = [];
    for (let i = 0; i < HOOKUPS; i++) {
      // A job of its own: the other stays without clamps. The search for ways is over by then.
      await open('plan', await openJob(page, url));
      plans.push(...(await tapped((nth) => page.locator('.way').nth(nth % 2), { settle: 12_000 })));
      await press(page.locator('.way').filter({ hasText: 'pack' }).first());
      await page.waitForTimeout(800);
      await press(next);
      await page.locator('vt-step-card').waitFor();
      // Each step arms its action anew before it can be tapped.
      hookups.push(...(await tapped(() => next, { taps: HOOKUP_STEPS, every: 900 })));
    }
    print('tap to paint, plan', told(plans));
    print('tap to paint, hookup', told(hookups));

    sayMachine();
    await open('measure');
    const rail = (stage) => page.locator('nav[aria-label="Stages"] button').nth(STAGES.indexOf(stage));
    const longest = [];
    for (let i = 0; i < PLANS; i++) {
      await press(rail('measure'));
      await page.waitForTimeout(800);
      await page.evaluate(() => (globalThis.tasks.length = 0));
      await press(rail('plan'));
      await page.waitForTimeout(2500);
      longest.push(Math.max(0, ...(await page.evaluate(() => globalThis.tasks))));
    }
    print('longest task while Plan opens', told(longest));

    await devtools.send('Emulation.setCPUThrottlingRate', { rate: 1 });
    const held = [];
    let changes = 0;
    for (const count of STAGE_CHANGES) {
      for (; changes < count; changes++) {
        await rail(STAGES[changes % STAGES.length]).click();
        await page.waitForTimeout(40);
      }
      await rail('scene').click();
      await page.waitForTimeout(1500);
      await devtools.send('HeapProfiler.collectGarbage');
      const { metrics } = await devtools.send('Performance.getMetrics');
      const of = (name) => metrics.find((m) => m.name === name).value;
      held.push({ own: await ownBytes(devtools), heap: of('JSHeapUsedSize'), nodes: of('Nodes') });
    }
    const [first, last] = held;
    const both = (of) =>
      `${(first[of] / 1e6).toFixed(1)} and ${(last[of] / 1e6).toFixed(1)} MB (ratio ${(last[of] / first[of]).toFixed(2)})`;
    print(
      `held after ${STAGE_CHANGES.join(' and ')} changes of stage`,
      `${both('own')} of what the application keeps, ${both('heap')} with what the browser compiled, ${first.nodes} and ${last.nodes} nodes`,
    );
  } finally {
    await browser.close();
    server.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Taps where a finger would: what finds and checks the place for a test would be measured along with the tap. */
async function pressAt(page, locator) {
  await locator.scrollIntoViewIfNeeded();
  const { x, y, width, height } = await locator.boundingBox();
  await page.waitForTimeout(100);
  await page.mouse.click(x + width / 2, y + height / 2);
}

/** The parts of the browser's heap that are not the application's own: compiled code, and data that it keeps for itself. */
const NOT_OWN = ['code', 'native'];

/**
 * Bytes that the application itself keeps, from the heap as it is written out. A leak grows here; compiling goes on for hundreds of
 * changes.
 */
async function ownBytes(devtools) {
  const chunks = [];
  const take = ({ chunk }) => chunks.push(chunk);
  devtools.on('HeapProfiler.addHeapSnapshotChunk', take);
  await devtools.send('HeapProfiler.takeHeapSnapshot', { reportProgress: false });
  devtools.off('HeapProfiler.addHeapSnapshotChunk', take);
  const { snapshot, nodes } = JSON.parse(chunks.join(''));
  const { node_fields: fields, node_types: types } = snapshot.meta;
  const at = { type: fields.indexOf('type'), size: fields.indexOf('self_size') };
  let bytes = 0;
  for (let i = 0; i < nodes.length; i += fields.length)
    if (!NOT_OWN.includes(types[at.type][nodes[i + at.type]])) bytes += nodes[i + at.size];
  return bytes;
}

/**
 * Waits until the service worker holds all it was told to: a page that is opened before waits for it. Milliseconds since the page began.
 */
function takenInMs(page) {
  return page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    const { assetGroups } = await (await fetch('/ngsw.json')).json();
    const wanted = assetGroups.flatMap(({ urls }) => urls).map((url) => new URL(url, location.href).href);
    const isHeld = async (url) => (await caches.match(url)) !== undefined;
    for (const url of wanted)
      while (!(await isHeld(url))) await new Promise((resolve) => setTimeout(resolve, 100));
    return performance.now();
  });
}

/** A job on a fresh call, with a reading and a plan, so that every stage has something to show. */
async function openJob(page, url) {
  const post = async (path, data) => (await page.request.post(`${url}${path}`, { data })).json();
  const call = { id: randomUUID(), title: 'Bench', placeName: 'Yard', said: '', ambientC: -4, urgent: false };
  const opened = await post('/api/board', { ...call, modelId: 'brinmoor-pella' });
  const jobId = randomUUID();
  const tell = (type, data) =>
    post(`/api/jobs/${jobId}/events`, {
      id: randomUUID(),
      jobId,
      at: new Date().toISOString(),
      by: 'crew-1',
      type,
      data,
    });
  await tell('job.opened', {
    callId: opened.id,
    callNumber: opened.number,
    title: 'Bench',
    placeName: 'Yard',
    modelId: 'brinmoor-pella',
    ambientC: -4,
  });
  await tell('polarity.proved', { signs: ['mark', 'meter'] });
  await tell('reading.taken', { kind: 'rest', volts: 11.75, battery: 0, tempC: -4, source: 'typed' });
  return jobId;
}
