import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';

/**
 * The application built with word files in which every word is marked: what is seen without marks did not come from them. Data, units and
 * what the server says are no words of the screens.
 */
const ROOT = join(import.meta.dirname, '..');
const BUILT = join(ROOT, 'web/out/pseudo/browser');
const DATA = [
  ...['demo/atlas.json', 'demo/house.json', 'server/src/demo/fleet.ts', 'server/src/demo/history.ts'],
  // The name that an instrument gives itself.
  ...['instruments/src/meter.ts', 'instruments/src/tester.ts'],
  // Words of the command line.
  ...readdirSync(join(ROOT, 'contracts/src/words')).map((name) => `contracts/src/words/${name}`),
]
  .map((name) => readFileSync(join(ROOT, name), 'utf8'))
  .join('\n')
  .toLowerCase();
const UNITS =
  /^(v|a|w|s|h|m|l|kg|mm|cm|ah|wh|kw|rpm|agm|efb|gel|lfp|cca|en|sae|din|jis|csv|json|pdf|f|c|mv|ma|ka|kj|j|mohm)$/i;
/** Dates are the locale's, codes and plates the record's. */
const DATES = /^(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|mon|tue|wed|thu|fri|sat|sun)[a-z]*$/i;
const CODE = /^[A-Z]{2,6}$/;

/** Words of a text that stand outside of all marks. */
function bare(text: string): string[] {
  let left = text;
  for (let before = ''; before !== left; ) {
    before = left;
    left = left.replace(/\u27e6[^\u27e6\u27e7]*\u27e7/g, ' ');
  }
  return (left.match(/[A-Za-z][A-Za-z'’-]+/g) ?? []).filter(
    (word) =>
      !UNITS.test(word) && !DATES.test(word) && !CODE.test(word) && !DATA.includes(word.toLowerCase()),
  );
}

/** Everything on the page that somebody reads or hears. */
const toldOn = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const told: string[] = [];
    const withoutKeys = (element: Element): string => {
      const copy = element.cloneNode(true) as Element;
      copy.querySelectorAll('kbd').forEach((key) => key.remove());
      return copy.textContent;
    };
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const parent = node.parentElement;
      if (parent && !parent.closest('script, style, kbd') && node.textContent?.trim())
        told.push(withoutKeys(parent));
    }
    document.querySelectorAll('[aria-label], [placeholder], [title], [alt]').forEach((element) => {
      for (const name of ['aria-label', 'placeholder', 'title', 'alt']) {
        const value = element.getAttribute(name);
        if (value) told.push(value);
      }
    });
    return told;
  });

const PAGES = [
  'board',
  'vehicles',
  'batteries',
  'atlas',
  'kit',
  'log',
  'bench',
  'rules',
  'files',
  'follow-ups',
  'set-up',
  'practice',
  'practice/drills',
  'practice/string-1',
  'practice/write',
  'practice/exam',
];
/** Pages with buttons that open something over them. */
const WITH_DIALOGS = ['board', 'vehicles', 'batteries', 'atlas', 'kit', 'files'];
const STAGES_WITH_DIALOGS = ['checks', 'locate', 'hookup', 'verdict'];
/** So many buttons of a page are tried. */
const BUTTONS_MOST = 24;
const STAGES = ['scene', 'checks', 'locate', 'measure', 'plan', 'hookup', 'crank', 'cleardown', 'verdict'];

/** Opens the job of the first call that waits, as a device would. */
async function openFirstCall(page: Page, url: string): Promise<string> {
  const [call] = (await (await page.request.get(`${url}/api/board`)).json()) as Record<string, unknown>[];
  const [member] = (await (await page.request.get(`${url}/api/crew`)).json()) as { id: string }[];
  const { id: callId, number: callNumber, title, placeName, modelId, vehicleId, ambientC } = call!;
  const jobId = randomUUID();
  const opened = await page.request.post(`${url}/api/jobs/${jobId}/events`, {
    data: {
      ...{ id: randomUUID(), jobId, at: new Date().toISOString(), by: member!.id, type: 'job.opened' },
      data: { callId, callNumber, title, placeName, modelId, vehicleId, ambientC },
    },
  });
  expect(opened.status()).toBe(201);
  return jobId;
}

test('every word of the screens comes from the word files', async ({ page, server }) => {
  test.setTimeout(1_200_000);
  await page.route(/.*/, async (route) => {
    const { pathname } = new URL(route.request().url());
    if (pathname.startsWith('/api/')) return route.continue();
    const file = join(BUILT, pathname);
    const path = pathname !== '/' && existsSync(file) ? file : join(BUILT, 'index.html');
    return route.fulfill({ path });
  });
  const found = new Map<string, Set<string>>();
  const look = async (where: string): Promise<void> => {
    await page.waitForTimeout(1500);
    for (const text of await toldOn(page))
      for (const word of bare(text))
        found.set(where, (found.get(where) ?? new Set()).add(`${word} (${text.trim().slice(0, 70)})`));
  };
  for (const path of PAGES) {
    await page.goto(`${server.url}/${path}`);
    await look(path);
  }
  const log = (await (await page.request.get(`${server.url}/api/jobs`)).json()) as { jobs: { id: string }[] };
  expect(log.jobs.length).toBeGreaterThan(3);
  for (const { id } of log.jobs.slice(0, 4))
    for (const stage of STAGES) {
      await page.goto(`${server.url}/job/${id}/${stage}`);
      await look(`job/${stage}`);
    }
  const jobId = await openFirstCall(page, server.url);
  let dialogs = 0;
  for (const path of [...WITH_DIALOGS, ...STAGES_WITH_DIALOGS.map((stage) => `job/${jobId}/${stage}`)]) {
    const address = `${server.url}/${path}`;
    const buttons = page.locator('button:visible:enabled');
    await page.goto(address);
    await page.waitForTimeout(1200);
    const count = Math.min(await buttons.count(), BUTTONS_MOST);
    for (let i = 0; i < count; i++) {
      if (page.url() !== address) await page.goto(address);
      await buttons
        .nth(i)
        .click({ timeout: 800 })
        .catch(() => undefined);
      const dialog = page.locator('ngb-modal-window');
      await dialog.waitFor({ timeout: 400 }).catch(() => undefined);
      if ((await dialog.count()) === 0) continue;
      dialogs++;
      await look(`${path}, dialog ${i}`);
      await page.goto('about:blank');
    }
  }
  expect(dialogs).toBeGreaterThan(12);
  const lines = [...found].map(([where, words]) => `${where}: ${[...words].join('; ')}`);
  expect(lines).toEqual([]);
});
