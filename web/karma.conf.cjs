const { existsSync } = require('node:fs');

process.env.CHROME_BIN ??= '/usr/bin/chromium';
if (!existsSync(process.env.CHROME_BIN)) throw new Error(`No Chromium at ${process.env.CHROME_BIN}`);

module.exports = (config) => {
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    reporters: ['dots'],
    browsers: ['QuietChromium'],
    customLaunchers: {
      QuietChromium: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--disable-gpu',
          '--disable-background-networking',
          '--disable-component-update',
          '--disable-sync',
          '--no-first-run',
          // Dates and times are told in the browser's locale.
          '--accept-lang=en-GB',
        ],
      },
    },
    // A machine that does other work beside is many times as slow, and may stand still for a while: only what never comes is late.
    captureTimeout: 300_000,
    browserNoActivityTimeout: 120_000,
    browserDisconnectTimeout: 60_000,
    client: { jasmine: { random: true, timeoutInterval: 60_000 } },
    restartOnFileChange: false,
  });
};
