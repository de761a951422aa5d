import type { Page } from '@playwright/test';
import { drawnWords } from '../support/drawn-words';
import { expect, faultsOf, test, worksHere } from '../support/fixtures';
import { Technician } from '../support/technician';
import { jobIdOf } from '../support/job-id';

test.use({ serviceWorkers: 'allow' });

/** Waits until this page is served from the device. */
async function held(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
  await page.reload();
  await expect
    .poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null), { timeout: 20_000 })
    .toBe(true);
}

/** Waits until a job is held on this device: it is written beside the page, which may go on before. */
async function holds(page: Page, jobId: string): Promise<void> {
  const isHeld = (): Promise<boolean> =>
    page.evaluate(
      (id) =>
        new Promise<boolean>((done) => {
          const opened = indexedDB.open('voltrek');
          opened.onsuccess = () => {
            const asked = opened.result.transaction('jobs').objectStore('jobs').getKey(id);
            asked.onsuccess = () => {
              opened.result.close();
              done(asked.result !== undefined);
            };
          };
        }),
      jobId,
    );
  await expect.poll(isHeld).toBe(true);
}

test('the bar tells when this device is ready for no network, and what is missing is fetched', async ({
  tech,
  page,
}) => {
  await tech.openBoard();
  const mark = page.getByRole('button', { name: /for no network/ });
  await expect(mark).toHaveAccessibleName(/Ready for no network/);
  // The browser drops a copy, as it may where room is short.
  await page.evaluate(async () => {
    for (const name of await caches.keys()) await (await caches.open(name)).delete('/api/rules');
  });
  await mark.click();
  const rules = page.getByRole('listitem').filter({ hasText: 'House rules' });
  await expect(rules).toContainText('missing');
  await page.getByRole('button', { name: 'Fetch it now' }).click();
  await expect(rules).not.toContainText('missing');
  await expect(page.getByRole('heading', { name: 'Ready for no network' })).toBeVisible();
});

test('a whole rescue with no network, reloaded at every stage; then everything arrives, once and in order', async ({
  tech,
  page,
  context,
}) => {
  await tech.openJob('brinmoor-pella');
  await held(page);
  const jobId = jobIdOf(page);
  await holds(page, jobId);
  await context.setOffline(true);
  const again = async (stage: Parameters<typeof tech.expectStage>[0]): Promise<void> => {
    await tech.expectStage(stage);
    await page.reload();
    await tech.expectStage(stage);
  };
  await again('Scene');
  await tech.toMeasure('rapid clicking');
  await again('Measure');
  await tech.read('1162');
  await expect(page.getByText(/no server, \d+ kept here since \d\d:\d\d/)).toBeVisible();
  await again('Measure');
  await tech.next('Go on to Plan');
  await again('Plan');
  await tech.take(/Lithium pack/);
  await tech.next('All off');
  await again('Hook up');
  await tech.workSteps();
  await again('Crank');
  await tech.tryOnce('It runs');
  await again('Clear down');
  await tech.workSteps();
  await tech.openStage('Verdict');
  await again('Verdict');
  await tech.next('Give verdict');
  await expect(tech.button(/Close the job/)).toBeVisible();
  await again('Verdict');
  const kept = await page.evaluate(
    () =>
      new Promise<string[]>((done) => {
        const asked = indexedDB.open('voltrek');
        asked.onsuccess = () => {
          const all = asked.result.transaction('waiting').objectStore('waiting').getAll();
          all.onsuccess = () => done((all.result as { id: string }[]).map((e) => e.id));
        };
      }),
  );
  expect(kept.length).toBeGreaterThan(15);
  await context.setOffline(false);
  await expect(page.getByText(/all saved/)).toBeVisible({ timeout: 30_000 });
  const { events } = (await (await page.request.get(`${tech.url}/api/jobs/${jobId}`)).json()) as {
    events: { id: string; type: string }[];
  };
  const ids = events.map((e) => e.id);
  expect(ids.slice(-kept.length)).toEqual(kept);
  expect(new Set(ids).size).toBe(ids.length);
  expect(events.at(-1)!.type).toBe('verdict.given');
});

test('a whole rescue in German, on a phone without network @long', async ({ tech, page, context }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.addInitScript(() => {
    localStorage.setItem('voltrek.settings', JSON.stringify({ language: 'de' }));
  });
  const crew = tech.speaking('de');
  await crew.openJob('brinmoor-pella');
  const jobId = jobIdOf(page);
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  await held(page);
  await holds(page, jobId);
  await crew.saved();
  await context.setOffline(true);
  await crew.toMeasure('rapid clicking');
  await crew.read('1162');
  await expect(page.getByText('11,62 V').first()).toBeVisible();
  await expect(page.getByText(/kein Server, \d+ hier seit \d\d:\d\d/)).toBeVisible();
  await crew.startWith(/Lithium pack/);
  await crew.openStage('Verdict');
  await crew.next('Give verdict:');
  await expect(crew.button(/Auftrag schließen/)).toBeVisible();
  // No English is left beside the words of the house and of the atlas.
  await expect(page.getByText(/\b(the|with|volts)\b/)).toHaveCount(0);
  await context.setOffline(false);
  await crew.saved();
  const { events } = (await (await page.request.get(`${tech.url}/api/jobs/${jobId}`)).json()) as {
    events: { type: string }[];
  };
  expect(events.at(-1)!.type).toBe('verdict.given');
});

test('a page that goes in the moment of a tap loses nothing @long', async ({ tech, page, context }) => {
  await tech.openJob('brinmoor-pella');
  const job = jobIdOf(page);
  await held(page);
  await context.setOffline(true);
  const SYMPTOMS = ['slow crank', 'one click', 'rapid clicking'];
  for (const symptom of SYMPTOMS) {
    await page.goto(`${tech.url}/job/${job}/checks`);
    const button = tech.button(symptom);
    await expect(button).toBeVisible();
    await button.evaluate((element: HTMLElement) => {
      element.click();
      location.reload();
    });
    await expect(tech.button(symptom)).toHaveAttribute('aria-pressed', 'true');
  }
  await context.setOffline(false);
});

test('taps of a job that was left are kept and sent like those of the one on screen @long', async ({
  tech,
  page,
  context,
}) => {
  await tech.openJob('ardwen-solace');
  const left = jobIdOf(page);
  await tech.openJob('brinmoor-pella');
  const open = jobIdOf(page);
  await held(page);
  for (const jobId of [left, open]) await holds(page, jobId);
  await context.setOffline(true);
  for (const jobId of [left, open]) {
    await page.goto(`${tech.url}/job/${jobId}/checks`);
    await tech.expectStage('Checks');
    await tech.tap('slow crank');
  }
  await expect(page.getByText(/no server, 2 of 2 jobs kept here since/)).toBeVisible();
  await page.getByText(/no server, 2 of 2 jobs/).click();
  await expect(page.getByRole('dialog').getByRole('listitem')).toHaveCount(2);
  await tech.tap('Close');
  // Beside the nine pages, a name and a van it has its place too.
  await page.goto(`${tech.url}/board`);
  const trouble = page.getByText(/no server, 2 of 2 jobs kept here since/);
  await expect(trouble).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBe(0);
  expect((await trouble.boundingBox())!.height).toBeLessThanOrEqual(48);
  await page.goBack();
  await tech.expectStage('Checks');
  await context.setOffline(false);
  await expect(page.getByText(/all saved/)).toBeVisible({ timeout: 30_000 });
  for (const jobId of [left, open]) {
    const job = (await (await page.request.get(`${tech.url}/api/jobs/${jobId}`)).json()) as {
      events: { type: string }[];
    };
    expect(job.events.map((e) => e.type)).toContain('symptom.recorded');
  }
});

test('pages read before are read again with no network @long', async ({ tech, page, context }) => {
  await tech.openBoard();
  await held(page);
  const read = async (path: string, heading: string): Promise<void> => {
    await page.goto(`${tech.url}/${path}`);
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible();
  };
  const PAGES = [
    ['board', 'Board'],
    ['kit', 'Kit'],
    ['rules', 'House rules'],
    ['log', 'Log'],
  ] as const;
  for (const [path, heading] of PAGES) await read(path, heading);
  await context.setOffline(true);
  for (const [path, heading] of PAGES) await read(path, heading);
  await page.goto(`${tech.url}/board`);
  await expect(page.locator('.call, vt-board-page button').first()).toBeVisible();
  await context.setOffline(false);
});

test('one rescue on two devices, one of them with no network: both end with all of it @long', async ({
  tech,
  page,
  context,
  browser,
}) => {
  await tech.openJob('brinmoor-pella');
  await held(page);
  await tech.toMeasure('rapid clicking');
  await tech.saved();
  const jobId = jobIdOf(page);
  const others = await browser.newContext({ serviceWorkers: 'allow' });
  try {
    await worksHere(others, 'crew-2');
    const second = new Technician(await others.newPage(), tech.url);
    await second.page.goto(`${tech.url}/job/${jobId}/checks`);
    await second.expectStage('Checks');

    await context.setOffline(true);
    await tech.read('1162');
    await tech.next('Go on to Plan');
    await tech.take(/Lithium pack/);
    await tech.next('All off');
    await expect(page.locator('vt-step-card h2')).toHaveText('Red on casualty battery +');
    // Meanwhile, at another stage, with the server in reach.
    await second.tap('slow crank');
    await second.saved();

    await context.setOffline(false);
    await tech.saved();
    await second.openStage('Hook up');
    await expect(second.page.locator('vt-step-card h2')).toHaveText('Red on casualty battery +');
    await tech.openStage('Checks');
    await expect(page.getByRole('button', { name: 'slow crank', exact: true })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
    const { events } = (await (await page.request.get(`${tech.url}/api/jobs/${jobId}`)).json()) as {
      events: { id: string; type: string; by: string }[];
    };
    expect(new Set(events.map((e) => e.id)).size).toBe(events.length);
    const of = (by: string): string[] => events.filter((e) => e.by === by).map((e) => e.type);
    expect(of('crew-2')).toEqual(['symptom.recorded']);
    expect(of('crew-1').slice(-3)).toEqual(['reading.taken', 'plan.chosen', 'step.confirmed']);
  } finally {
    await others.close();
  }
});

test('what was closed lately can be read with no network, though it was never opened on this device @long', async ({
  tech,
  page,
  context,
}) => {
  await tech.openBoard();
  await held(page);
  await tech.openBoard();
  const { jobs } = (await (await page.request.get(`${tech.url}/api/jobs?limit=50`)).json()) as {
    jobs: { id: string }[];
  };
  const heldHere = (): Promise<number> =>
    page.evaluate(
      (ids) =>
        new Promise<number>((done) => {
          const asked = indexedDB.open('voltrek');
          asked.onsuccess = () => {
            const all = asked.result.transaction('jobs').objectStore('jobs').getAllKeys();
            all.onsuccess = () => done(ids.filter((id) => all.result.includes(id)).length);
          };
        }),
      jobs.map(({ id }) => id),
    );
  await expect.poll(heldHere, { timeout: 30_000 }).toBe(jobs.length);
  await context.setOffline(true);
  await page.goto(`${tech.url}/job/${jobs.at(-1)!.id}`);
  await tech.expectStage('Verdict');
});

test('a new call and its job with no network: searched, opened and worked here, then on the board under the same ids @long', async ({
  tech,
  page,
  context,
}) => {
  await tech.openBoard();
  await held(page);
  const prepared = page.waitForResponse((r) => r.url().endsWith('/api/batteries'));
  await tech.openBoard();
  await prepared;
  await context.setOffline(true);

  await tech.tap('New call');
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Plate, if it has one').fill('OF 7731');
  await sheet.getByLabel('Vehicle or machine').fill('pella');
  await sheet.getByRole('option').first().click();
  await sheet.getByLabel('Place').fill('Ferry slip');
  await sheet.getByLabel('Air, °C').fill('-6');
  await expect(sheet.getByText(/No server: atlas and vehicles as of/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Save the call' }).click();
  await expect(sheet).toHaveCount(0);
  const call = page.locator('.call', { hasText: 'Ferry slip' });
  await expect(call.locator('.number')).toHaveText('new');
  await page.reload();
  await call.click();
  await tech.expectStage('Scene');
  const jobId = jobIdOf(page);
  await page.reload();
  await tech.toMeasure('rapid clicking');
  await tech.read('1162');
  await page.reload();
  await tech.expectStage('Measure');
  await expect(page.getByText('New call', { exact: true })).toBeVisible();

  await page.goto(`${tech.url}/board`);
  await expect(call).toContainText('at Measure');
  await page.getByText(/no server, \d+ kept here since/).click();
  await expect(page.getByRole('dialog').getByText(/New call: .*Ferry slip/)).toBeVisible();
  await tech.tap('Close');

  // The bar may say anything while a page begins, but not that all is saved.
  await page.addInitScript(() => {
    const said: string[] = [];
    Object.assign(globalThis, { said });
    new MutationObserver(() => {
      const text = document.querySelector('vt-saved-line [role=status]')?.textContent;
      if (text && said.at(-1) !== text) said.push(text);
    }).observe(document, { subtree: true, childList: true, characterData: true });
  });
  await page.goto(`${tech.url}/job/${jobId}`);
  await expect(page.getByText(/kept here since/)).toBeVisible();
  const said = await page.evaluate(() => (globalThis as unknown as { said: string[] }).said);
  expect(said.filter((text) => !/kept here since|looking what waits|saving \d/.test(text))).toEqual([]);
  await tech.openBoard();

  await context.setOffline(false);
  await expect(call.locator('.number')).toHaveText(/^\d+$/, { timeout: 30_000 });
  await page.goto(`${tech.url}/job/${jobId}`);
  await expect(page.getByText(/all saved/)).toBeVisible({ timeout: 30_000 });
  const job = (await (await page.request.get(`${tech.url}/api/jobs/${jobId}`)).json()) as {
    call: { number: number };
    vehicle: { plate: string };
    events: { type: string; data: { callNumber?: number } }[];
  };
  expect(job.vehicle.plate).toBe('OF 7731');
  expect(job.events[0]!.data.callNumber).toBe(job.call.number);
  expect(job.events.map((e) => e.type)).toContain('reading.taken');
  const board = (await (await page.request.get(`${tech.url}/api/board`)).json()) as { placeName: string }[];
  expect(board.filter(({ placeName }) => placeName === 'Ferry slip').length).toBe(1);
});

test('what the server tells of itself is reached from a device that holds the application @long', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/board`);
  await held(page);
  await page.goto(`${server.url}/api/docs`);
  await expect(page.getByText('/api/health').first()).toBeVisible();
  await page.goto(`${server.url}/metrics`);
  await expect(page.getByText('# HELP').first()).toBeVisible();
});

test.describe('a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  test('has a case of Practice worked by touch with no network, and passed @long', async ({
    page,
    context,
    server,
  }) => {
    const faults = faultsOf(page);
    await page.goto(`${server.url}/practice`);
    await held(page);
    await context.setOffline(true);
    await page.getByLabel('Code of a case').fill('made~car~left-on~6~22');
    await page.getByRole('button', { name: 'Open it' }).tap();
    await expect(page.getByRole('heading', { name: /^Case [a-z2-9]+$/ })).toBeVisible();
    const radio = (name: string | RegExp) =>
      page.getByRole('radio', { name, exact: typeof name === 'string' }).tap();
    const button = (name: string | RegExp) =>
      page.getByRole('button', { name, exact: typeof name === 'string' }).tap();
    const pin = (number: number) =>
      page
        .locator('.pin')
        .filter({ hasText: new RegExp(`^${number}$`) })
        .tap();

    // The part with the points is drawn so large that its words can be read; all of it at a tap.
    await expect(page.locator('vt-circuit svg text').first()).toBeVisible();
    // A drawing knows its room a frame after it is there. A pixel has no such thousandths.
    await expect
      .poll(async () => Math.min(...(await drawnWords(page, 'vt-circuit')).map(({ px }) => px)))
      .toBeGreaterThan(11.99);
    await button('Full');
    await button('Near');

    await button('Case');
    await button('Something left on');
    await button('Use');
    await radio('probes');
    await pin(1);
    await pin(2);
    await button('Read');
    await expect(page.locator('.meter .figure')).toHaveText(/^0\.\d\d V$/);
    await radio('clamps');
    await button(/Service van, Heavy/);
    await button('Everything off, both sides');
    for (const [clamp, point, place] of [
      ['Red, casualty end', 1, 'Battery +'],
      ['Red, source end', 1, 'Battery +'],
      ['Black, source end', 2, 'Battery -'],
      ['Black, casualty end', 3, 'Bare metal'],
    ] as const) {
      const end = page.getByRole('radio', { name: clamp });
      await end.tap();
      await pin(point);
      await expect(end).toContainText(place);
    }
    await button('Start the donor');
    await radio('wait');
    await button('+ 5 min');
    await radio('key');
    await button('Turn the key');
    await expect(page.locator('.log li').filter({ hasText: 'Key turned' })).toContainText('It starts');
    // It was got running: does it charge?
    await radio(/^ask/);
    await button('Charging volts');
    await radio('clamps');
    await button('Stop the donor');
    for (const end of [
      /^Black, casualty end/,
      /^Black, source end/,
      /^Red, source end/,
      /^Red, casualty end/,
    ]) {
      await radio(end);
      await button('Take it off');
    }
    await button('Give the verdict');
    await radio('Charge first');
    await button('Give it');
    await expect(page.getByRole('heading', { name: 'Passed', exact: true })).toBeVisible();
    // It is still there after a reload, with no network yet.
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Passed', exact: true })).toBeVisible();
    expect(faults).toEqual([]);
  });
});
