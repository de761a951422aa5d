import type { Page } from '@playwright/test';
import { expect, test } from '../support/fixtures';
import { TestServer } from '../support/server';
import { Technician } from '../support/technician';

interface Counted {
  readonly taps: number;
  readonly digits: number;
}

/** A practised hand: at most so many for a plain case, and for any other kind of call. */
const [MOST_PLAIN, MOST] = [26, 34];

/** Counts what fingers do: taps that reach the page, and digits on the pad. */
async function counting(page: Page): Promise<() => Promise<Counted>> {
  await page.addInitScript(() => {
    addEventListener(
      'click',
      ({ isTrusted, target }) => {
        if (!isTrusted) return;
        const isDigit = target instanceof Element && target.closest('[aria-label="Number pad"]') !== null;
        const key = isDigit ? 'digits' : 'taps';
        sessionStorage.setItem(key, String(Number(sessionStorage.getItem(key) ?? 0) + 1));
      },
      { capture: true },
    );
  });
  return () =>
    page.evaluate(() => ({
      taps: Number(sessionStorage.getItem('taps') ?? 0),
      digits: Number(sessionStorage.getItem('digits') ?? 0),
    }));
}

interface Kind {
  readonly name: string;
  readonly model: string;
  readonly ambientC?: number;
  readonly work: (tech: Technician) => Promise<void>;
}

const KINDS: readonly Kind[] = [
  {
    name: 'two tries of one source',
    model: 'brinmoor-pella',
    work: async (tech) => {
      await tech.toMeasure('slow crank');
      await tech.read('1185');
      await tech.next('Go on to Plan');
      await tech.next(/^\s*Take/);
      await tech.workSteps();
      await tech.tryOnce('Slow');
      // No test waits for the rest: to go on early takes one tap and a reason.
      await tech.next(/Crank sooner/);
      await tech.page.getByLabel(/Reason/).fill('the test does not wait');
      await tech.tap('Go on, and log it');
      await tech.tap('It runs');
      await tech.finish();
    },
  },
  {
    name: 'not the battery',
    model: 'ostrel-fell-450',
    work: async (tech) => {
      await tech.safeToWork();
      await tech.tap('brisk crank, no fire', 'was shut');
      await tech.openStage('Verdict');
      await tech.giveAndClose();
    },
  },
  {
    name: 'electric vehicle, shut',
    model: 'kestow-parcel-e',
    work: async (tech) => {
      await tech.safeToWork();
      await tech.tap('no doors, no screens');
      await tech.next('Go on to Locate');
      await tech.tap('red cover or cable', 'meter reads plus');
      await tech.read('1160');
      await tech.next('Go on to Plan');
      await tech.next(/^\s*Take/);
      await tech.workSteps();
      await tech.tryOnce('Awake, ready');
      await tech.finish();
    },
  },
  {
    name: 'string of two, one weak',
    model: 'hulvane-cornice-9',
    ambientC: -9,
    work: async (tech) => {
      await tech.toMeasure('slow crank');
      await tech.read('1185');
      await tech.read('1255');
      await tech.next('Go on to Plan');
      await tech.take(/Lead-acid pack.*across battery 1/);
      await tech.workSteps();
      await tech.tryOnce('It runs');
      await tech.finish();
    },
  },
  {
    name: 'stop on arrival',
    model: 'brinmoor-pella',
    work: async (tech) => {
      await tech.tap(/^Fuel smell or spill/);
      await tech.openStage('Verdict');
      await tech.giveAndClose();
    },
  },
];

test('every kind of call takes few taps, a plain one a single figure, and none with a meter @long', async ({
  tech,
  page,
}) => {
  const counted = await counting(page);
  const table: [name: string, counted: Counted][] = [];
  const count = async (name: string): Promise<Counted> => {
    const of = await counted();
    table.push([name, of]);
    await page.evaluate(() => sessionStorage.clear());
    return of;
  };
  await tech.openJob('brinmoor-pella');
  await tech.plainCase(() => tech.read('1185'));
  const typed = await count('plain, one figure');
  for (const { name, model, ambientC, work } of KINDS) {
    await tech.openJob(model, ambientC);
    await work(tech);
    await count(name);
  }
  // A call of the demo, where the linked meter reads what is hidden in its machine: a server of its own, so that no other test meets it.
  const server = await TestServer.ofDemo();
  try {
    await server.start();
    const other = new Technician(page, server.url);
    await other.openBoard();
    await page.getByRole('button', { name: /Hatchback, front bay/ }).click();
    await other.plainCase(() => other.tap('Take it'));
    const metered = await count('plain, linked meter');
    for (const [name, { taps, digits }] of table)
      process.stdout.write(`${name.padEnd(26)} ${taps} taps, ${digits} digits\n`);
    expect(metered.digits).toBe(0);
    expect(typed.digits).toBeLessThanOrEqual(4);
    expect(Math.max(typed.taps, metered.taps)).toBeLessThanOrEqual(MOST_PLAIN);
    for (const [name, { taps }] of table) expect(taps, name).toBeLessThanOrEqual(MOST);
  } finally {
    await server.remove();
  }
});
