import { type BrowserContext, type BrowserContextOptions, type Page, test as base } from '@playwright/test';
import { TestServer } from './server';
import { Technician } from './technician';

interface Fixtures {
  readonly tech: Technician;
  /** False for tests of the moment in which a button that has changed takes no tap: the others do not wait for it. */
  readonly armsAtOnce: boolean;
}
interface WorkerFixtures {
  /** One server with the demo data for all tests of a worker: a start costs seconds. */
  readonly server: TestServer;
  /** One browser for all tests of a worker: it keeps the application's code compiled. What a test leaves in it is cleared. */
  readonly warm: WarmBrowser;
}

interface WarmBrowser {
  readonly context: BrowserContext;
  /** Makes it a device that nobody has used. */
  readonly clear: (origin: string) => Promise<void>;
}

/** How long the application holds a tap back after a button changed, ms. */
const ARMS_AFTER_MS = 400;

/** The tasks of the plan's worker that draw machines, the argument with the count, and a share that is enough. */
const SAMPLES_OF: Readonly<Record<string, readonly [argument: number, share: number]>> = {
  ...{ odds: [2, 0.1], ways: [2, 0.1], wait: [3, 0.1], leads: [2, 0.1], helps: [3, 0.1] },
  suspect: [3, 0.3],
};
/**
 * A screen with fewer draws shows the same words, sooner. The core's own tests count the odds. A verdict is drawn in full: its words turn
 * on a few in a hundred.
 */
const SAMPLES_LEAST = 50;

/** A request to a worker, as Comlink posts it. */
interface Ask {
  readonly path?: readonly string[];
  readonly argumentList?: readonly { value: unknown }[];
}

/** The device of most tests; that of the settings, which a worker's fixture cannot read. */
const DEVICE = {
  viewport: { width: 1280, height: 800 },
  locale: 'en-GB',
  serviceWorkers: 'block',
} as const satisfies BrowserContextOptions;

/** Says who holds the devices of a test, once: a new device asks. */
export async function worksHere(context: BrowserContext, crewId = 'crew-1'): Promise<void> {
  await context.addInitScript((id) => {
    localStorage.setItem('voltrek.crew', localStorage.getItem('voltrek.crew') ?? id);
  }, crewId);
}

/**
 * Collects the faults of a page from now on. The application catches its own errors and writes them down, so the browser does not report
 * them a second time.
 */
export function faultsOf(page: Page): readonly string[] {
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  page.on('console', (said) => {
    if (said.type() === 'error' && /^ERROR|Content Security Policy/.test(said.text()))
      faults.push(said.text());
  });
  return faults;
}

/** Returns the text of a page, or the reason that it has none: a page that hangs or is gone fails no second time. */
function textOf(page: Page): Promise<string> {
  return page
    .locator('body')
    .innerText({ timeout: 5_000 })
    .catch((error: unknown) => String(error));
}

export const test = base.extend<Fixtures, WorkerFixtures>({
  server: [
    async ({}, use) => {
      const server = await TestServer.ofDemo();
      const { ready, output } = await server.start();
      if (!ready) throw new Error(`the server did not start: ${output}`);
      await use(server);
      await server.remove();
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  warm: [
    async ({ browser }, use) => {
      const context = await browser.newContext(DEVICE);
      await worksHere(context);
      await context.addInitScript((armsAfterMs) => {
        const later = globalThis.setTimeout;
        globalThis.setTimeout = ((act: () => void, ms?: number, ...more: unknown[]) =>
          later(act, ms === armsAfterMs ? 0 : ms, ...more)) as typeof setTimeout;
      }, ARMS_AFTER_MS);
      await context.addInitScript(
        ({ tasks, least }) => {
          const post = Worker.prototype.postMessage as (...message: unknown[]) => void;
          Worker.prototype.postMessage = function (this: Worker, message: Ask, ...rest: unknown[]) {
            const [argument, share] = tasks[message.path?.[0] ?? ''] ?? [-1, 1];
            const samples = message.argumentList?.[argument];
            if (typeof samples?.value === 'number')
              samples.value = Math.max(least, Math.ceil(samples.value * share));
            post.call(this, message, ...rest);
          };
        },
        { tasks: SAMPLES_OF, least: SAMPLES_LEAST },
      );
      const keeper = await context.newPage();
      const devtools = await context.newCDPSession(keeper);
      await use({
        context,
        clear: async (origin) => {
          for (const page of context.pages()) if (page !== keeper) await page.close();
          await context.unrouteAll({ behavior: 'ignoreErrors' });
          await context.setOffline(false);
          await context.clearCookies();
          await context.clearPermissions();
          await devtools.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' });
        },
      });
      await context.close();
    },
    { scope: 'worker' },
  ],
  armsAtOnce: [true, { option: true }],
  context: async ({ context, warm, server, serviceWorkers, hasTouch, armsAtOnce }, use) => {
    if (serviceWorkers === 'allow' || hasTouch || !armsAtOnce) {
      await worksHere(context);
      await use(context);
      return;
    }
    await use(warm.context);
    await warm.clear(server.url);
  },
  tech: async ({ page, server }, use, testInfo) => {
    const faults = faultsOf(page);
    await use(new Technician(page, server.url));
    // A machine without a screen shows its pictures to nobody: the text of the page stands in the output.
    if (testInfo.status !== testInfo.expectedStatus)
      process.stderr.write(`${testInfo.title}: ${page.url()}\n${await textOf(page)}\n`);
    if (faults.length > 0) throw new Error(`the page threw: ${faults.join('; ')}`);
  },
});

export { expect } from '@playwright/test';
