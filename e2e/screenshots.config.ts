import config from './playwright.config';

export default { ...config, testDir: '.', testMatch: 'screenshots.spec.ts' };
