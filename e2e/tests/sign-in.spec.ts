import { type Browser, type BrowserContext, expect, type Page, test } from '@playwright/test';
import { TestServer } from '../support/server';
import { Technician } from '../support/technician';
import { jobIdOf } from '../support/job-id';

const PINS = { lead: '480263', technician: '917354', apprentice: '605281' } as const;
/** The demo's crew. */
const [LEAD, TECHNICIAN, APPRENTICE] = ['crew-1', 'crew-2', 'crew-4'] as const;

interface Named {
  readonly id: string;
  readonly name: string;
}

/** The demo's crew by id, while the door is open. */
async function namesOf(server: TestServer): Promise<Readonly<Record<string, string>>> {
  const crew = (await (await fetch(`${server.url}/api/crew`)).json()) as Named[];
  return Object.fromEntries(crew.map(({ id, name }) => [id, name]));
}

/** By a name: a passkey is bound to one. */
const urlOf = (server: TestServer): string => server.url.replace('127.0.0.1', 'localhost');

async function signIn(page: Page, name: string, pin: string): Promise<void> {
  const door = page.getByRole('dialog', { name: 'Sign in' });
  await expect(door).toBeVisible();
  const field = door.getByLabel(/Your name/);
  if (await field.isVisible()) await field.fill(name);
  else await door.getByRole('button', { name, exact: true }).click();
  await door.getByLabel('PIN', { exact: true }).fill(pin);
  await door.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(door).toBeHidden();
}

/** A device of its own. */
async function device(browser: Browser): Promise<{ context: BrowserContext; page: Page }> {
  const context = await browser.newContext({ serviceWorkers: 'block' });
  return { context, page: await context.newPage() };
}

/** The house's own data on a device: jobs, answers that the service worker put by, and the people who work on it. */
const heldOn = (page: Page): Promise<{ jobs: number; answers: number; waiting: number; crewId: string }> =>
  page.evaluate(async () => {
    const count = (store: string): Promise<number> =>
      new Promise((done) => {
        const opened = indexedDB.open('voltrek');
        opened.onsuccess = () => {
          const asked = opened.result.transaction(store).objectStore(store).count();
          asked.onsuccess = () => {
            opened.result.close();
            done(asked.result);
          };
        };
      });
    const names = (await caches.keys()).filter((name) => name.includes(':data:') && name.endsWith(':cache'));
    const kept = await Promise.all(
      names.map(async (name) => (await (await caches.open(name)).keys()).length),
    );
    return {
      jobs: await count('jobs'),
      waiting: await count('waiting'),
      answers: kept.reduce((all, n) => all + n, 0),
      crewId: localStorage.getItem('voltrek.crew') ?? '',
    };
  });

/** The lead's own page of the door, with every PIN set and sign-in required. */
async function shutDoor(page: Page, url: string, names: Readonly<Record<string, string>>): Promise<void> {
  await page.goto(`${url}/kit`);
  const who = page.getByRole('dialog').getByRole('button', { name: names[LEAD]!, exact: true });
  await who.click();
  const part = page.locator('vt-sign-in-part');
  for (const [id, pin] of [
    [LEAD, PINS.lead],
    [TECHNICIAN, PINS.technician],
    [APPRENTICE, PINS.apprentice],
  ] as const) {
    const line = part.getByRole('listitem').filter({ hasText: names[id]! });
    await line.getByRole('button', { name: 'Set PIN' }).click();
    await line.getByLabel(/New PIN of/).fill(pin);
    if (id !== LEAD) await line.getByLabel('Your own PIN as it stands').fill(PINS.lead);
    await line.getByRole('button', { name: 'Save' }).click();
    await expect(line.getByText('has a PIN')).toBeVisible();
  }
  await part.getByLabel('Your PIN, as a crew lead').fill(PINS.lead);
  await part.getByRole('button', { name: 'Require sign-in' }).click();
  await expect(part.getByText(/^Required:/)).toBeVisible();
}

/** On a device that nobody signed in on: no data and no names, until a name and its PIN fit. */
async function strangerSignsIn(
  page: Page,
  url: string,
  names: Readonly<Record<string, string>>,
): Promise<void> {
  await page.goto(`${url}/board`);
  await expect(page.getByRole('dialog', { name: 'Sign in' })).toBeVisible();
  await expect(page.getByText(names[LEAD]!)).toHaveCount(0);
  await page.getByLabel(/Your name/).fill(names[TECHNICIAN]!);
  await page.getByLabel('PIN', { exact: true }).fill(PINS.lead);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'do not belong together' })).toBeVisible();
  await signIn(page, names[TECHNICIAN]!, PINS.technician);
  await expect(page.getByLabel('Who works')).toHaveValue(TECHNICIAN);
}

test('sign-in required: a stranger sees nothing, a wrong PIN opens nothing, and the right one does', async ({
  browser,
}) => {
  const server = await TestServer.ofDemo();
  try {
    expect((await server.start()).ready).toBeTruthy();
    const url = urlOf(server);
    const names = await namesOf(server);
    const office = await device(browser);
    await shutDoor(office.page, url, names);
    const van = await device(browser);
    await strangerSignsIn(van.page, url, names);
    for (const { context } of [office, van]) await context.close();
  } finally {
    await server.remove();
  }
});

test('sign-in required: each role to its own, a device handed over, an ended session that loses no tap, a passkey @long', async ({
  browser,
}) => {
  const server = await TestServer.ofDemo();
  try {
    // Reached from other machines only once somebody must sign in.
    const refused = await server.start('--host', '0.0.0.0');
    expect(refused.ready).toBeFalsy();
    expect(refused.output).toContain('Sign-in is not set up');
    expect((await server.start()).ready).toBeTruthy();
    const url = urlOf(server);
    const names = await namesOf(server);

    const office = await device(browser);
    await shutDoor(office.page, url, names);

    const van = await device(browser);
    await strangerSignsIn(van.page, url, names);

    // In mid-job the session is ended from the office: the next taps wait on the device, and arrive when somebody has signed in again.
    const tech = new Technician(van.page, url);
    const title = await tech.newCall('brinmoor-pella');
    await van.page.goto(`${url}/board`);
    await tech.tap(new RegExp(title));
    await tech.expectStage('Scene');
    const jobId = jobIdOf(van.page);
    await office.page.reload();
    const doorPart = office.page.locator('vt-sign-in-part');
    await doorPart
      .getByRole('listitem')
      .filter({ hasText: names[TECHNICIAN]! })
      .getByRole('button', { name: /^End / })
      .click();
    await expect(
      doorPart.getByRole('button', { name: new RegExp(`^End ${names[TECHNICIAN]!}`) }),
    ).toHaveCount(0);
    await tech.safeToWork();
    await tech.expectStage('Checks');
    await tech.tap('slow crank');
    const bar = van.page.getByRole('alert').filter({ hasText: 'Sign in to go on' });
    await expect(bar).toBeVisible();
    await bar.getByRole('button', { name: 'Sign in' }).click();
    await signIn(van.page, names[TECHNICIAN]!, PINS.technician);
    await expect(van.page.getByText(/all saved/)).toBeVisible();
    const logged = (await (await van.page.request.get(`${url}/api/jobs/${jobId}`)).json()) as {
      events: { type: string; by: string }[];
    };
    expect(logged.events.map(({ type }) => type)).toEqual([
      'job.opened',
      'scene.recorded',
      'symptom.recorded',
    ]);

    // An apprentice may work in it once somebody answers for it.
    const learner = await device(browser);
    await learner.page.goto(`${url}/job/${jobId}`);
    await signIn(learner.page, names[APPRENTICE]!, PINS.apprentice);
    const pupil = new Technician(learner.page, url);
    await learner.page.goto(`${url}/job/${jobId}/checks`);
    await pupil.expectStage('Checks');
    await pupil.tap('one click');
    await expect(learner.page.getByText(/Nobody answers for this job yet/)).toBeVisible();
    await tech.openStage('Scene');
    await tech.tap('I answer for an apprentice here');
    await expect(tech.button('I answer for an apprentice here')).toHaveAttribute('aria-pressed', 'true');
    await expect(van.page.getByText(/all saved/)).toBeVisible();
    await pupil.tap('one click');
    await expect(learner.page.getByText(/all saved/)).toBeVisible();
    await learner.page.goto(`${url}/rules`);
    const rule = await learner.page.request.post(`${url}/api/rules`, {
      data: { key: 'crankTriesMax', value: 2, by: APPRENTICE },
    });
    expect(rule.status()).toBe(403);

    // The van's device is handed over: one tap and a PIN.
    await van.page.goto(`${url}/board`);
    await van.page.getByLabel('Who works').selectOption(LEAD);
    await signIn(van.page, names[LEAD]!, PINS.lead);
    await expect(van.page.getByLabel('Who works')).toHaveValue(LEAD);

    // A passkey, made by whoever is in, opens the door without a PIN.
    const cdp = await office.context.newCDPSession(office.page);
    await cdp.send('WebAuthn.enable');
    await cdp.send('WebAuthn.addVirtualAuthenticator', {
      options: {
        protocol: 'ctap2',
        transport: 'internal',
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified: true,
      },
    });
    await doorPart.getByRole('button', { name: 'Add a passkey on this device' }).click();
    await expect(doorPart.getByRole('button', { name: /^Remove the passkey of/ })).toBeVisible();
    await doorPart.getByRole('button', { name: 'Sign out on this device' }).click();
    const door = office.page.getByRole('dialog', { name: 'Sign in' });
    await door.getByRole('button', { name: 'Use a passkey' }).click();
    await expect(door).toBeHidden();
    await expect(office.page.getByLabel('Who works')).toHaveValue(LEAD);

    // Now it may be reached from outside, and stays shut; somebody who forgot theirs gets a PIN where the data lies.
    await server.stop();
    expect(await server.house('pin', names[TECHNICIAN]!)).toMatch(/is now \d{6}/);
    expect((await server.start('--host', '0.0.0.0')).ready).toBeTruthy();
    await office.page.goto(`${url}/kit`);
    await doorPart.getByLabel('Your PIN, as a crew lead').fill(PINS.lead);
    await doorPart.getByRole('button', { name: 'Open to everybody' }).click();
    await expect(doorPart.getByRole('alert')).toContainText('sign-in stays required');
    for (const { context } of [office, van, learner]) await context.close();
  } finally {
    await server.remove();
  }
});

test('whoever signs out leaves nothing of the house on the device but what waits; it is sent by whoever comes back @long', async ({
  browser,
}) => {
  const server = await TestServer.ofDemo();
  try {
    expect((await server.start()).ready).toBeTruthy();
    const url = urlOf(server);
    const names = await namesOf(server);
    const office = await device(browser);
    await shutDoor(office.page, url, names);

    const context = await browser.newContext({ serviceWorkers: 'allow' });
    const page = await context.newPage();
    const tech = new Technician(page, url);
    await page.goto(`${url}/board`);
    await signIn(page, names[TECHNICIAN]!, PINS.technician);
    await page.evaluate(async () => void (await navigator.serviceWorker.ready));
    await page.reload();
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    const title = await tech.newCall('brinmoor-pella');
    await page.goto(`${url}/board`);
    await tech.tap(new RegExp(title));
    await tech.expectStage('Scene');
    const jobId = jobIdOf(page);
    await expect.poll(async () => (await heldOn(page)).answers).toBeGreaterThan(0);
    await expect.poll(async () => (await heldOn(page)).jobs).toBeGreaterThan(10);

    // A tap that cannot be sent, then out: the way to the log of jobs is shut, that to the door is not.
    await context.route(/\/api\/jobs\/[^/]+\/events/, (route) => route.abort());
    await tech.safeToWork();
    await tech.expectStage('Checks');
    await expect(page.getByText(/no server, 1 kept here since/)).toBeVisible();
    await page.goto(`${url}/kit`);
    await page.getByRole('button', { name: 'Sign out on this device' }).click();
    await expect(page.getByRole('dialog', { name: 'Sign in' })).toBeVisible();
    expect(await heldOn(page)).toEqual({ jobs: 1, waiting: 1, answers: 0, crewId: '' });
    await expect(page.getByText(/0 waiting, 0 under way/)).toBeVisible();
    await expect(page.getByText(title)).toHaveCount(0);

    await context.unroute(/\/api\/jobs\/[^/]+\/events/);
    await signIn(page, names[TECHNICIAN]!, PINS.technician);
    await expect.poll(async () => (await heldOn(page)).waiting).toBe(0);
    const logged = (await (await page.request.get(`${url}/api/jobs/${jobId}`)).json()) as {
      events: { type: string }[];
    };
    expect(logged.events.map(({ type }) => type)).toEqual(['job.opened', 'scene.recorded']);
    await context.close();
    await office.context.close();
  } finally {
    await server.remove();
  }
});
