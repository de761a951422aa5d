import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';

/**
 * The application built with message files in which every message is marked. A text without marks must be a value that the server sent, as
 * it sent it: a part of one does not count.
 */
const ROOT = join(import.meta.dirname, '..');
const BUILT = join(ROOT, 'web/out/marked/browser');

/** Signs that are no words: units, standards, kinds of files, names of keys, the product itself. */
const SIGNS = new Set(
  (
    'V A W C F s h m L kg mm cm Ah Wh F mA mohm min rpm SAE EN DIN IEC JIS AGM EFB CSV JSON PDF PIN x K Ω ' +
    'voltrek Enter Esc U R M English Deutsch CCA AC Pella'
  ).split(' '),
);
/** Dates are the locale's. */
const DATES =
  /\b(jan|feb|mar|apr|may|jun|jul|aug|sep|sept|oct|nov|dec|mon|tue|wed|thu|fri|sat|sun)[a-z]*\b/gi;

/** Signs around a value that its sentence brings. */
const edgeless = (text: string): string => text.replace(/^[\s“”"(.,;:]+|[\s“”").,;:+-]+$/g, '');
/** The same value within a sentence. */
const small = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** Every text in an answer of the server; of a piece of kit its name without the figures behind the comma as well. */
function* textsIn(value: unknown): Generator<string> {
  if (typeof value === 'string') {
    for (const text of [value, value.split(',')[0]!]) yield* [edgeless(text), small(edgeless(text))];
  } else if (value !== null && typeof value === 'object')
    for (const child of Object.values(value)) yield* textsIn(child);
}

/** Words of a text that stand outside of all marks and are no value of the server. */
function bare(text: string, sent: ReadonlySet<string>): string[] {
  let left = text;
  for (let before = ''; before !== left; ) {
    before = left;
    left = left.replace(/\u27e6[^\u27e6\u27e7]*\u27e7/g, '\u0000');
  }
  return left
    .split('\u0000')
    .flatMap((part) => unsent(edgeless(part), sent))
    .flatMap((part) => part.replace(DATES, ' ').match(/[A-Za-zΩ][A-Za-zΩ'’-]*/g) ?? [])
    .filter((word) => !SIGNS.has(word));
}

/** The parts of a text that the server did not send: whole values, side by side, are its own. */
function unsent(text: string, sent: ReadonlySet<string>): string[] {
  if (text === '' || sent.has(text)) return [];
  const edges = [...text.matchAll(/[\s,;:()"“”.-]+/g)].map((m) => [m.index, m.index + m[0].length] as const);
  for (const [end, next] of [...edges].reverse())
    if (sent.has(edgeless(text.slice(0, end)))) return unsent(text.slice(next), sent);
  const [first] = edges;
  return first ? [text.slice(0, first[0]), ...unsent(text.slice(first[1]), sent)] : [text];
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
      if (parent && !parent.closest('script, style, kbd, svg') && node.textContent?.trim())
        told.push(withoutKeys(parent));
    }
    // A chart breaks a long text into lines of their own.
    document.querySelectorAll('svg').forEach((svg) => {
      told.push(Array.from(svg.querySelectorAll('text'), ({ textContent }) => textContent).join(' '));
    });
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
  'desk',
  'shift',
  'figures',
  'watch',
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

test('every text of the screens comes from the message files', async ({ page, server }) => {
  test.setTimeout(1_200_000);
  const sent = new Set<string>();
  await page.route(/.*/, async (route) => {
    const { pathname } = new URL(route.request().url());
    if (pathname.startsWith('/api/')) {
      if (pathname.endsWith('/stream')) return route.continue();
      const response = await route.fetch();
      const body: unknown = await response.json().catch(() => null);
      for (const text of textsIn(body)) sent.add(text);
      return route.fulfill({ response });
    }
    const file = join(BUILT, pathname);
    const path = pathname !== '/' && existsSync(file) ? file : join(BUILT, 'index.html');
    return route.fulfill({ path });
  });
  const found = new Map<string, Set<string>>();
  const look = async (where: string): Promise<void> => {
    await page.waitForTimeout(1500);
    for (const text of await toldOn(page))
      for (const word of bare(text, sent))
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
