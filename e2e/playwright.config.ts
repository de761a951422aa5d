import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: './tests',
  globalSetup: './support/demo-folder.ts',
  // Rescues and browsers that differ in little from another test's: `npm run prove` goes through them, `npm test -- changed` through those that were changed.
  grepInvert: process.env.LONG_TESTS ? [] : /@long/,
  workers: 2,
  // A busy machine is five times as slow as an idle one, and no test is about speed: the limits only end a test that hangs.
  timeout: 480_000,
  expect: { timeout: 60_000 },
  reporter: [['list']],
  outputDir: './test-results',
  use: {
    actionTimeout: 60_000,
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
