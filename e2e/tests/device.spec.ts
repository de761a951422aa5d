import type { Locator } from '@playwright/test';
import { expect, faultsOf, test } from '../support/fixtures';
import { Technician } from '../support/technician';
import { jobIdOf } from '../support/job-id';

test('a device that nobody has taken asks who works, once, and logs under that name', async ({
  browser,
  server,
}) => {
  const page = await browser.newPage({ serviceWorkers: 'block' });
  await page.goto(`${server.url}/board`);
  const dialog = page.getByRole('dialog', { name: 'Who works on this device?' });
  await expect(dialog).toBeVisible();
  // It is answered, not waved away.
  await page.keyboard.press('Escape');
  await expect(dialog).toBeVisible();
  await dialog.getByRole('button', { name: 'Isk' }).click();
  await expect(dialog).toBeHidden();
  await page.reload();
  await expect(page.getByRole('combobox', { name: 'Who works' })).toHaveValue('crew-3');
  await expect(dialog).toBeHidden();
  await page.context().close();
});

test('a device is set for the left hand, larger type and no letter keys, and stays so @long', async ({
  tech,
  page,
}) => {
  await tech.openJob('brinmoor-pella');
  const place = async (name: string): Promise<number> => (await tech.button(name).boundingBox())!.x;
  expect(await place('Undo')).toBeLessThan(await place('Make safe'));
  await tech.tap('This device: settings');
  for (const name of [/Left hand/, /Larger type/, /Keys of one letter/])
    await page.getByRole('switch', { name }).click();
  await tech.tap('Close');
  expect(await place('Make safe')).toBeLessThan(await place('Undo'));
  await page.keyboard.press('r');
  await tech.expectStage('Scene');
  await page.reload();
  await tech.expectStage('Scene');
  expect(await place('Make safe')).toBeLessThan(await place('Undo'));
  await tech.tap('This device: settings');
  await page.getByRole('switch', { name: /Keys of one letter/ }).click();
  await tech.tap('Close');
  await page.keyboard.press('r');
  await tech.expectStage('Measure');
});

test('a device shows °F, gauges and feet; what is kept is as it was @long', async ({ tech, page }) => {
  await tech.openJob('brinmoor-pella');
  const jobId = jobIdOf(page);
  await tech.tap('This device: settings');
  for (const name of [/Temperatures in °F/, /Lead sections by gauge/, /Lengths in feet/])
    await page.getByRole('switch', { name }).click();
  await tech.tap('Close');
  await expect(page.getByText('Air, °F')).toBeVisible();
  await expect(page.locator('vt-stepper output').first()).toHaveText('25');
  await tech.tap('Warmer');
  await expect(page.locator('vt-stepper output').first()).toHaveText('27');
  await tech.saved();
  const job = (await (await page.request.get(`${tech.url}/api/jobs/${jobId}`)).json()) as {
    events: { type: string; data: { ambientC?: number } }[];
  };
  expect(job.events.at(-1)!.data.ambientC).toBe(-3);

  await page.goto(`${tech.url}/kit`);
  const row = page.getByRole('listitem').filter({ hasText: 'Heavy set' }).first();
  await expect(row).toContainText('3 AWG, 11.5 ft');
  await row.getByRole('button', { name: /Heavy set/ }).click();
  const field = page.getByRole('dialog').getByLabel('Leads, section, AWG');
  await field.fill('2');
  await expect(field).toHaveValue('2');
  await page.getByRole('dialog').getByRole('button', { name: 'Save', exact: true }).click();
  await expect(row).toContainText('2 AWG');
  const vans = (await (await page.request.get(`${tech.url}/api/vans`)).json()) as {
    kit: { name: string; leads?: { sectionMm2: number } }[];
  }[];
  const heavy = vans.flatMap((van) => van.kit).find(({ name }) => name.startsWith('Heavy set'))!;
  expect(heavy.leads!.sectionMm2).toBeCloseTo(33.63, 1);
  await row.getByRole('button', { name: /Heavy set/ }).click();
  await field.fill('3.28');
  await page.getByRole('dialog').getByRole('button', { name: 'Save', exact: true }).click();
  await expect(row).toContainText('3 AWG');
});

test('eight pages of one device stay alive on one line to the server, and hear each other @long', async ({
  tech,
  page,
  context,
}) => {
  let lines = 0;
  context.on('request', (request) => {
    if (new URL(request.url()).pathname === '/api/stream') lines++;
  });
  await tech.openJob('brinmoor-pella');
  const pages = [page];
  for (let i = 1; i < 8; i++) {
    const more = await context.newPage();
    await new Technician(more, tech.url).openJob(i % 2 ? 'ardwen-solace' : 'kestow-parcel-e');
    pages.push(more);
  }
  expect(lines).toBe(1);
  const last = new Technician(pages.at(-1)!, tech.url);
  await last.next('Safe to work here');
  await last.expectStage('Checks');
  await last.saved();
  // The first page goes to the job of the last one, and sees what is done there.
  await page.bringToFront();
  await page.goto(last.page.url());
  await expect(page.getByRole('heading', { level: 1, name: 'Checks' })).toBeVisible();
  await last.page.bringToFront();
  await last.tap('slow crank');
  await expect(page.getByRole('button', { name: 'slow crank', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  // The page that listened closes: another takes its place.
  for (const each of pages.slice(0, 7)) if (each !== page) await each.close();
  await last.tap('rapid clicking');
  await expect(page.getByRole('button', { name: 'rapid clicking', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('who goes by keyboard or by ear begins each stage at its heading, and hears each step @long', async ({
  tech,
  page,
}) => {
  await tech.openJob('brinmoor-pella');
  const heading = (name: string) => page.getByRole('heading', { level: 1, name, exact: true });
  await expect(heading('Scene')).toBeFocused();
  for (const [digit, name] of [
    ['2', 'Checks'],
    ['3', 'Locate'],
    ['4', 'Measure'],
  ] as const) {
    await page.keyboard.press(digit);
    await expect(heading(name)).toBeFocused();
  }
  await tech.openStage('Plan');
  await expect(heading('Plan')).toBeFocused();
  // The next stop is what the stage begins with, not the rail that was tapped.
  await page.keyboard.press('Tab');
  await expect(page.locator('.stage :focus')).toBeVisible();

  // Enter is still what the bar says it is.
  await tech.openStage('Scene');
  await tech.toMeasure('one click');
  await expect(heading('Measure')).toBeFocused();
  await tech.read('1185');
  await tech.openStage('Plan');
  const enter = async (): Promise<void> => {
    await expect(page.locator('.next')).not.toHaveAttribute('aria-disabled');
    await page.keyboard.press('Enter');
  };
  await expect(page.locator('.next')).toContainText('running by');
  await enter();
  await expect(heading('Hook up')).toBeFocused();
  const step = page.locator('vt-step-card [aria-live="polite"]');
  const first = await step.innerText();
  await enter();
  await expect(step).not.toHaveText(first);
});

test('dates and times are told in the locale of the browser @long', async ({ browser, server }) => {
  const told: string[] = [];
  for (const locale of ['en-GB', 'en-US', 'de-DE']) {
    const context = await browser.newContext({ locale, serviceWorkers: 'block' });
    const page = await context.newPage();
    await page.addInitScript(() => localStorage.setItem('voltrek.crew', 'crew-1'));
    await page.goto(`${server.url}/log`);
    told.push((await page.locator('.when').first().innerText()).replace(/\s/g, ' '));
    // On a phone each job is one column beside its number, however long its date is written.
    await page.setViewportSize({ width: 390, height: 844 });
    for (const row of (await page.locator('li a').all()).slice(0, 5)) {
      const [number, ...beside] = await row.locator('> :visible').all();
      const leftOf = async (part: Locator): Promise<number> => Math.round((await part.boundingBox())!.x);
      const lefts = await Promise.all(beside.map(leftOf));
      expect(lefts.length).toBeGreaterThan(1);
      expect(new Set(lefts).size).toBe(1);
      expect(lefts[0]).toBeGreaterThan(await leftOf(number!));
    }
    // Nor does a time of day give the bar of a job a second row, which the stage would lose.
    const tech = new Technician(page, server.url);
    await tech.openJob('brinmoor-pella');
    await tech.tap('sloping');
    await expect(page.getByRole('banner')).toContainText(/saved \d/);
    expect((await page.getByRole('banner').boundingBox())!.height).toBeLessThan(60);
    await context.close();
  }
  expect(told[0]).toMatch(/^\d+ [A-Z][a-z]+ \d{4}, \d\d:\d\d$/);
  expect(told[1]).toMatch(/^[A-Z][a-z]{2} \d+, \d{4}, \d{1,2}:\d\d [AP]M$/);
  expect(told[2]).toMatch(/^\d+\. \p{L}+\.? \d{4}, \d\d:\d\d$/u);
});

test('a device with a sensor of light goes by it, and by the hand that chooses @long', async ({
  tech,
  page,
}) => {
  await page.addInitScript(() => {
    class Sensor extends EventTarget {
      illuminance = 3;
      private readonly over = new AbortController();
      start(): void {
        setTimeout(() => this.dispatchEvent(new Event('reading')));
        const read = (e: Event): void => {
          this.illuminance = (e as CustomEvent<number>).detail;
          this.dispatchEvent(new Event('reading'));
        };
        addEventListener('brightness', read, { signal: this.over.signal });
      }
      stop(): void {
        this.over.abort();
      }
    }
    Object.assign(window, { AmbientLightSensor: Sensor });
  });
  await tech.openBoard();
  const light = page.locator('html');
  await expect(light).toHaveAttribute('data-light', 'day');
  await tech.tap('This device: settings');
  await page.getByRole('switch', { name: /Light by the sensor/ }).click();
  await expect(light).toHaveAttribute('data-light', 'night');
  await page.evaluate(() => dispatchEvent(new CustomEvent('brightness', { detail: 5_000 })));
  await expect(light).toHaveAttribute('data-light', 'day');
  await tech.tap('Close');
  await page.getByRole('radio', { name: 'Dusk' }).click();
  await expect(light).toHaveAttribute('data-light', 'dusk');
  await page.evaluate(() => dispatchEvent(new CustomEvent('brightness', { detail: 3 })));
  await tech.tap('This device: settings');
  await expect(page.getByRole('switch', { name: /Light by the sensor/ })).not.toBeChecked();
  await expect(light).toHaveAttribute('data-light', 'dusk');
});

test('a browser that lacks what is not everywhere does a whole rescue with less, and no script fails @long', async ({
  tech,
  page,
}) => {
  const failed: string[] = [];
  page.on('pageerror', (error) => failed.push(String(error)));
  page.on('console', (said) => {
    if (said.type() === 'error' && !said.text().startsWith('Failed to load resource'))
      failed.push(said.text());
  });
  await page.addInitScript(() => {
    const lacking: readonly [object, readonly string[]][] = [
      [window, ['requestIdleCallback', 'cancelIdleCallback', 'BroadcastChannel', 'AudioContext']],
      [Navigator.prototype, ['wakeLock', 'vibrate', 'locks', 'hardwareConcurrency', 'clipboard']],
    ];
    for (const [on, names] of lacking)
      for (const name of names)
        if (!Reflect.deleteProperty(on, name)) throw new Error(`${name} is still there`);
  });
  await tech.openJob('brinmoor-pella');
  await tech.plainCase(() => tech.read('1185'));
  await tech.saved();
  for (const path of ['/bench', '/practice', '/log', '/kit', '/rules', '/atlas']) {
    await page.goto(`${tech.url}${path}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  }
  expect(failed).toEqual([]);
});

test('a browser that denies every place to keep says so, and works on with the server @long', async ({
  browser,
  server,
}) => {
  const page = await browser.newPage({ serviceWorkers: 'block' });
  const failed = faultsOf(page);
  await page.addInitScript(() => {
    const deny = (): never => {
      throw new DOMException('denied', 'SecurityError');
    };
    for (const name of ['localStorage', 'sessionStorage', 'indexedDB', 'caches'])
      Object.defineProperty(window, name, { get: deny });
  });
  const tech = new Technician(page, server.url);
  const title = await tech.newCall('brinmoor-pella');
  await page.goto(`${server.url}/board`);
  await page
    .getByRole('dialog', { name: 'Who works on this device?' })
    .getByRole('button', { name: 'Isk' })
    .click();
  await page.getByRole('radio', { name: 'Night' }).click();
  await page.getByRole('button', { name: title }).click();
  await tech.expectStage('Scene');
  await expect(page.locator('html')).toHaveAttribute('data-light', 'night');
  await tech.toMeasure('one click');
  await tech.read('1185');
  await expect(page.getByText('no place to keep taps')).toBeVisible();
  const jobId = jobIdOf(page);
  await expect
    .poll(async () => {
      const answer = await page.request.get(`${server.url}/api/jobs/${jobId}`);
      const { events } = (await answer.json()) as { events: { type: string; by: string }[] };
      return events.map(({ type, by }) => `${type} ${by}`).at(-1);
    })
    .toBe('reading.taken crew-3');
  // A setting lasts as long as the page.
  await page.getByRole('link', { name: 'voltrek, to the board' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Board' })).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Who works' })).toHaveValue('crew-3');
  expect(failed).toEqual([]);
  await page.context().close();
});

test('steps are spoken, and a tap anywhere on the stage does each; a wait is not cut short by it', async ({
  tech,
  page,
}) => {
  await page.addInitScript(() => {
    localStorage.setItem('voltrek.settings', JSON.stringify({ speaks: true }));
    const said: string[] = [];
    Object.assign(globalThis, { said });
    speechSynthesis.speak = ({ text }) => void said.push(text);
  });
  const said = (): Promise<string[]> =>
    page.evaluate(() => (globalThis as unknown as { said: string[] }).said);
  await tech.at('hookup', 'brinmoor-pella', {
    restVolts: [11.6],
    symptom: 'rapid-click',
    plan: 'donor-van-1+leads-heavy',
  });
  const card = page.locator('vt-step-card');
  const title = card.getByRole('heading', { level: 2 });
  for (const [i, step] of ['Everything off', 'Red on casualty', 'Red on donor', 'Black on donor'].entries()) {
    await expect(title).toContainText(step);
    await expect.poll(async () => (await said())[i]).toContain(step);
    await expect(page.locator('.next.arming')).toHaveCount(0);
    await title.click();
  }
  await expect(title).toContainText('Black on casualty');
  // The hazard of the step is said with it.
  await expect.poll(async () => (await said())[4]).toMatch(/It sparks: .* V across/);
  for (const step of ['Black on casualty', 'Start the donor', 'Let it take charge']) {
    await expect(title).toContainText(step);
    await expect(page.locator('.next.arming')).toHaveCount(0);
    await title.click();
  }
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(title).toContainText('Let it take charge');
});
