import type { Page } from '@playwright/test';
import { expect, test } from '../support/fixtures';
import { PAGES } from '../support/pages';

/** Phone, upright and sideways; tablet, both ways; a laptop zoomed to 400, 200 and 150 %; a small laptop, a laptop, a large screen. */
const SIZES = [
  [320, 640],
  [390, 844],
  [844, 390],
  [600, 960],
  [768, 1024],
  [1024, 768],
  [640, 400],
  [853, 533],
  [1100, 700],
  [1200, 800],
  [1280, 800],
  [1920, 1080],
] as const;
const STAGES = ['scene', 'checks', 'locate', 'measure', 'plan', 'hookup', 'crank', 'cleardown', 'verdict'];

/** Faults of the layout: parts wider than their place, targets too small for a glove, words cut off, a next action out of sight. */
const faultsOfLayout = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    const wide = document.documentElement.scrollWidth - innerWidth;
    if (wide > 0) found.push(`the page is ${wide} px too wide`);
    const stage = document.querySelector('.stage');
    const over = stage ? stage.scrollWidth - stage.clientWidth : 0;
    if (over > 1) found.push(`the stage is ${over} px too wide`);
    const next = document.querySelector('.next')?.getBoundingClientRect();
    if (next && (next.top < 0 || next.bottom > innerHeight + 1 || next.right > innerWidth + 1))
      found.push('the next action is out of sight');
    for (const part of Array.from(document.querySelectorAll<HTMLElement>('button, a[href], input, select'))) {
      const { width, height } = part.getBoundingClientRect();
      const words = [part.textContent, part.getAttribute('aria-label'), part.className];
      const name = words
        .find((text) => text?.trim())
        ?.trim()
        .slice(0, 30);
      const isExempt = part.matches('[type=range], [type=radio], [type=checkbox], p a, .visually-hidden');
      if (width === 0 || height === 0 || isExempt) continue;
      if (width < 47.5 || height < 47.5)
        found.push(`"${name}" is ${Math.round(width)} x ${Math.round(height)} px`);
      if (part.matches('button') && part.scrollWidth > part.clientWidth + 1)
        found.push(`"${name}" is cut: ${part.scrollWidth} px of words in ${part.clientWidth}`);
    }
    return found;
  });

async function walk(
  page: Page,
  url: string,
  job: string,
  sizes: readonly (readonly [number, number])[],
): Promise<void> {
  const found: string[] = [];
  for (const [width, height] of sizes) {
    await page.setViewportSize({ width, height });
    for (const path of [...STAGES.map((stage) => `${job}/${stage}`), ...PAGES, 'bench/leads', 'files']) {
      await page.goto(`${url}/${path}`);
      await page
        .locator(path.startsWith('job') ? '.next' : 'h1')
        .first()
        .waitFor();
      // Parts that a tap does not wait for are drawn in the frames after it.
      await page.evaluate(() => new Promise((done) => requestIdleCallback(done)));
      const where = path.replace(/^job\/[^/]+/, 'job');
      for (const fault of await faultsOfLayout(page)) found.push(`${width}x${height} ${where}: ${fault}`);
    }
  }
  expect(found).toEqual([]);
}

const BEFORE = {
  symptom: 'rapid-click',
  restVolts: [11.9],
  plan: 'donor-van-1+leads-heavy',
} as const;

test('a tablet held sideways shows every page and stage whole, with targets for gloves', async ({
  tech,
  page,
}) => {
  await tech.at('hookup', 'brinmoor-pella', BEFORE);
  await walk(page, tech.url, new URL(page.url()).pathname.split('/').slice(1, 3).join('/'), [[1024, 768]]);
});

for (const language of ['en', 'de'])
  test(`every size shows every page and stage whole, in ${language} @long`, async ({ tech, page }) => {
    test.setTimeout(600_000);
    await page.addInitScript((chosen) => {
      localStorage.setItem('voltrek.settings', JSON.stringify({ language: chosen }));
    }, language);
    await tech.at('hookup', 'brinmoor-pella', BEFORE);
    await walk(page, tech.url, new URL(page.url()).pathname.split('/').slice(1, 3).join('/'), SIZES);
  });
