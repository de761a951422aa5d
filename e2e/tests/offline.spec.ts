import type { Page } from '@playwright/test';
import { expect, test } from '../support/fixtures';

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

const jobIdOf = (page: Page): string => /job\/([0-9a-f-]{36})/.exec(page.url())![1]!;

test('a whole rescue with no network, reloaded at every stage; then everything arrives, once and in order', async ({
  tech,
  page,
  context,
}) => {
  test.setTimeout(180_000);
  await tech.openJob('brinmoor-pella');
  await held(page);
  const jobId = jobIdOf(page);
  await context.setOffline(true);
  const again = async (stage: Parameters<typeof tech.expectStage>[0]): Promise<void> => {
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
  await tech.workSteps(/Go on/);
  await tech.next('Go on: crank');
  await again('Crank');
  await tech.tryOnce('It runs');
  await tech.next('Go on to Clear down');
  await again('Clear down');
  await tech.workSteps(/Go on/);
  await tech.next('Go on to the verdict');
  await again('Verdict');
  await tech.next('Give verdict');
  await expect(tech.button('Close the job')).toBeVisible();
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

test('a page that goes in the moment of a tap loses nothing', async ({ tech, page, context }) => {
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

test('taps of a job that was left are kept and sent like those of the one on screen', async ({
  tech,
  page,
  context,
}) => {
  test.setTimeout(120_000);
  await tech.openJob('ardwen-solace');
  const left = jobIdOf(page);
  await tech.openJob('brinmoor-pella');
  const open = jobIdOf(page);
  await held(page);
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
  await context.setOffline(false);
  await expect(page.getByText(/all saved/)).toBeVisible({ timeout: 30_000 });
  for (const jobId of [left, open]) {
    const job = (await (await page.request.get(`${tech.url}/api/jobs/${jobId}`)).json()) as {
      events: { type: string }[];
    };
    expect(job.events.map((e) => e.type)).toContain('symptom.recorded');
  }
});

test('pages read before are read again with no network', async ({ tech, page, context }) => {
  test.setTimeout(120_000);
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
