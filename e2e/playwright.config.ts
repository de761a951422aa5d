import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: './tests',
  globalSetup: './support/demo-folder.ts',
  workers: 2,
  timeout: 120_000,
  // A machine that does other work beside is three times as slow: only what never comes is late.
  expect: { timeout: 30_000 },
  reporter: [['list']],
  outputDir: './test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    // Dates and times are told in the browser's locale.
    locale: 'en-GB',
    screenshot: 'only-on-failure',
    // Requests are watched and turned away by the tests; only those of the network's absence let it work.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
});
