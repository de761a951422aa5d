import { test as base } from '@playwright/test';
import { TestServer } from './server';
import { Technician } from './technician';

interface Fixtures {
  readonly tech: Technician;
}
interface WorkerFixtures {
  /** One server with the demo data for all tests of a worker: a start costs seconds. */
  readonly server: TestServer;
}

export const test = base.extend<Fixtures, WorkerFixtures>({
  server: [
    async ({}, use) => {
      const server = await TestServer.create();
      const { ready, output } = await server.start();
      if (!ready) throw new Error(`the server did not start: ${output}`);
      await use(server);
      await server.remove();
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  tech: async ({ page, server }, use) => {
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    await use(new Technician(page, server.url));
    if (faults.length > 0) throw new Error(`the page threw: ${faults.join('; ')}`);
  },
});

export { expect } from '@playwright/test';
