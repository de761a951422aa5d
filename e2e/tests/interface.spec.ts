import { AxeBuilder } from '@axe-core/playwright';
import type { Locator, Page } from '@playwright/test';
import type { EventEntry } from '@voltrek/core/job';
import { expect, test } from '../support/fixtures';
import { drawnWords } from '../support/drawn-words';
import { foreignSigns } from '../support/own-fonts';
import { PAGES } from '../support/pages';
import { jobIdOf } from '../support/job-id';
import type { Technician } from '../support/technician';

const STAGES = ['Scene', 'Checks', 'Locate', 'Measure', 'Plan', 'Hook up', 'Crank', 'Clear down', 'Verdict'];

/** Contrast in the other lights is a test of the colours themselves. */
async function expectAccessible(page: Page, where: string): Promise<void> {
  // No page has frames, so one context is enough: the other mode opens a blank page for each analysis.
  const axe = new AxeBuilder({ page })
    .setLegacyMode()
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'best-practice']);
  // The unit test of the tokens holds every pair of colours. On a page, this rule takes longer than all others together.
  if (!process.env.LONG_TESTS) axe.disableRules(['color-contrast']);
  const { violations } = await axe.analyze();
  const found = violations.flatMap((v) =>
    v.nodes.map((n) => `${where}: ${v.id}: ${n.html.slice(0, 140)} ${n.failureSummary ?? ''}`),
  );
  expect(found).toEqual([]);
}

/** A hatchback and the service van, joined as far as these steps. */
async function hookUp(tech: Technician, steps: readonly string[]): Promise<void> {
  await tech.at('hookup', 'brinmoor-pella', {
    symptom: 'one-click',
    restVolts: [11.85],
    plan: 'donor-van-1+leads-heavy',
  });
  for (const done of ['All off', ...steps]) await tech.next(done);
}

test('make safe takes everything off from the middle of a hook-up', async ({ tech, page }) => {
  await hookUp(tech, [
    'Red clamp is on',
    'Red clamp is on',
    'Black clamp is on',
    'Black clamp is on',
    'Donor runs',
  ]);
  await page.keyboard.press('m');
  for (const act of [
    'Stop the donor',
    'Black off casualty ground point',
    'Black off donor battery -',
    'Red off donor battery +',
    'Red off casualty battery +',
  ]) {
    await tech.tap(`Done: ${act}`);
  }
  await expect(page.getByText('Everything is off.')).toBeVisible();
  await tech.tap('Close');
  await expect(page.locator('vt-step-card h2')).toHaveText('Everything off, both sides');
});

test('something else was done: the steps go on from where the clamps really are', async ({ tech, page }) => {
  await hookUp(tech, ['Red clamp is on', 'Red clamp is on', 'Black clamp is on']);
  await expect(page.locator('vt-step-card .hazard')).toContainText('Note');
  await tech.tap('I did something else');
  await page.getByRole('radio', { name: /^Black, casualty end/ }).click();
  await page.getByRole('radio', { name: 'battery -: Battery -', exact: true }).click();
  await tech.tap('That is how it stands');
  await expect(page.locator('vt-step-card h2')).toHaveText(/Black off/);
  await expect(page.locator('vt-step-card .hazard.is-severe')).toHaveCount(0);
  await tech.workSteps();
  await tech.expectStage('Crank');
  await tech.saved();
});

test('what else is so is noted and judged before it is told, and goes into the log', async ({
  tech,
  page,
}) => {
  await tech.at('hookup', 'brinmoor-pella', {
    symptom: 'slow-crank',
    restVolts: [11.9],
    plan: 'donor-van-1+leads-heavy',
  });
  await tech.next('All off');
  await tech.tap('I did something else');
  const sheet = page.locator('vt-something-else-dialog');
  await sheet.getByRole('radio', { name: /^Black, casualty end/ }).click();
  await sheet.locator('vt-circuit .pin').nth(2).click();
  await sheet.getByLabel('on what metal').selectOption({ label: 'a pipe' });
  await expect(sheet.getByRole('status')).toContainText('Stop: A pipe that carries fuel');
  await sheet.getByText('Other circumstances').click();
  await sheet.getByRole('button', { name: 'a gear is in' }).click();
  await expect(sheet.getByRole('status')).toContainText('Gear out, brake on, wheels chocked.');
  await sheet.getByRole('button', { name: 'That is how it stands' }).click();
  await tech.saved();
  await page.reload();
  await tech.tap('I did something else');
  await sheet.getByRole('radio', { name: /^Black, casualty end/ }).click();
  await expect(sheet.getByLabel('on what metal')).toHaveValue('pipe');
  await sheet.getByText('Other circumstances').click();
  await expect(sheet.getByRole('button', { name: 'a gear is in' })).toHaveAttribute('aria-pressed', 'true');
});

test('undo takes back the last tap', async ({ tech, page }) => {
  await tech.at('scene', 'brinmoor-pella');
  await tech.next('Safe to work here');
  await tech.tap('one click');
  await expect(tech.button('one click')).toHaveAttribute('aria-pressed', 'true');
  await tech.tap('Undo');
  await expect(tech.button('one click')).toHaveAttribute('aria-pressed', 'false');
  await expect(
    page.getByRole('navigation', { name: 'Stages' }).getByRole('button', { name: /Checks/ }),
  ).not.toContainText('done');
});

test('the keyboard reaches everything: stages, pad, next action, undo, help', async ({ tech, page }) => {
  await tech.at('scene', 'ardwen-solace');
  await page.keyboard.press('2');
  await tech.expectStage('Checks');
  await page.keyboard.press('r');
  await tech.expectStage('Measure');
  await page.locator('h1').first().click();
  await page.keyboard.type('1180');
  await expect(page.locator('.next')).toBeEnabled();
  await page.keyboard.press('Enter');
  await expect(page.locator('.value').first()).toHaveText('11.80 V');
  await page.keyboard.press('u');
  await expect(page.getByText('Nothing yet.')).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeHidden();
});

/** The words of buttons that gloves would miss. */
const tooSmall = (buttons: Locator): Promise<(string | null)[]> =>
  buttons
    .filter({ visible: true })
    .evaluateAll((all) => all.filter((b) => b.getBoundingClientRect().height < 48).map((b) => b.textContent));

test('every stage is accessible, its buttons big enough, and fits the tablet without scrolling', async ({
  tech,
  page,
}) => {
  await tech.at('hookup', 'brinmoor-pella', {
    symptom: 'one-click',
    restVolts: [11.85],
    plan: 'donor-van-1+leads-heavy',
  });
  for (const stage of STAGES) {
    await tech.openStage(stage);
    await tech.expectStage(stage as Parameters<typeof tech.expectStage>[0]);
    await expectAccessible(page, stage);
    expect(await foreignSigns(page), stage).toEqual([]);
    const overflow = await page.locator('.stage').evaluate((e) => e.scrollHeight - e.clientHeight);
    expect(overflow, `${stage} scrolls`).toBeLessThanOrEqual(0);
    expect(await tooSmall(page.locator('.stage button, .next, vt-rail button')), stage).toEqual([]);
  }
});

test('every page is accessible', async ({ tech, page }) => {
  for (const path of PAGES) {
    await page.goto(`${tech.url}/${path}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expectAccessible(page, path);
  }
});

test('every part of Measure and Verdict is accessible, its buttons big enough @long', async ({
  tech,
  page,
}) => {
  const read = (kind: 'crank-minimum' | 'charging-idle', volts: number): EventEntry => [
    'reading.taken',
    { kind, volts, battery: 0, tempC: -4, source: 'typed' },
  ];
  await tech.at('measure', 'brinmoor-pella', {
    symptom: 'slow-crank',
    restVolts: [12.54],
    then: [read('crank-minimum', 7.4), read('charging-idle', 14.4)],
  });
  await page.getByRole('radio', { name: 'The battery' }).click();
  await tech.read('240');
  const PARTS: Record<string, readonly string[]> = {
    Measure: ['At the posts', 'Over joints', 'The battery', 'Parked draw', 'Trace'],
    Verdict: ['Evidence', 'Next', 'Change battery', 'Job sheet'],
  };
  for (const [stage, parts] of Object.entries(PARTS)) {
    await tech.openStage(stage);
    if (stage === 'Verdict') await expect(page.getByText('Likeliest causes')).toBeVisible();
    for (const part of parts) {
      await page.getByRole('radio', { name: part, exact: true }).click();
      await expectAccessible(page, `${stage}, ${part}`);
      expect(await tooSmall(page.locator('.stage button, .stage a.key')), part).toEqual([]);
    }
  }
});

test('without colours of its own the next action, Make safe and the current stage keep their shapes', async ({
  tech,
  page,
}) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await tech.at('measure', 'brinmoor-pella', { symptom: 'slow-crank', restVolts: [11.85] });
  const borderOf = (name: string): Promise<string> =>
    page.locator(name).evaluate((element) => getComputedStyle(element).borderTopStyle);
  expect(await borderOf('.next')).toBe('solid');
  expect(await borderOf('.safe button')).toBe('dashed');
  expect(await borderOf('vt-rail .current')).toBe('solid');
  expect(await borderOf('vt-rail li:first-child button')).toBe('none');
  await page.emulateMedia({ forcedColors: 'none' });
});

test('the first stop of the keyboard leads past bar and rail to the stage', async ({ tech, page }) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'slow-crank', restVolts: [11.85] });
  const first = page.locator('button, a[href], input, select').first();
  await expect(first).toHaveText('Skip to the page');
  // Enter is the next action's, but for a button that the keyboard reached.
  await page.locator('vt-top-bar .mark').focus();
  await page.keyboard.press('Shift+Tab');
  await expect(first).toBeFocused();
  await expect(first).toBeInViewport();
  await page.keyboard.press('Enter');
  await expect(page.locator('.stage')).toBeFocused();
  await tech.expectStage('Measure');
});

test.describe('a button that has changed', () => {
  test.use({ armsAtOnce: false });

  test('a second tap, a held key and a stray tap beside a dialog do nothing', async ({ tech, page }) => {
    await tech.at('plan', 'ardwen-solace', { symptom: 'slow-crank', restVolts: [11.85] });
    await tech.take(/Lithium pack/);
    await tech.next('All off');
    // Two taps in one place: the second one is the next step's, and not taken.
    await page.locator('.next:not([aria-disabled])').dblclick();
    await expect(page.locator('vt-step-card h2')).toHaveText('Black on casualty ground point');
    await page.waitForTimeout(600);
    await expect(page.locator('vt-step-card h2')).toHaveText('Black on casualty ground point');
    for (let i = 0; i < 4; i++) await page.keyboard.down('u');
    await page.keyboard.up('u');
    await expect(page.locator('vt-step-card h2')).toHaveText(/^Red on casualty/);
    await page.waitForTimeout(300);
    await expect(page.locator('vt-step-card h2')).toHaveText(/^Red on casualty/);
    await tech.next('Red clamp is on');
    await tech.tap('Make safe');
    await page.mouse.click(4, 300);
    await expect(page.getByRole('dialog')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
  });

  test('what comes under the finger with a tap is not done by its second half @long', async ({
    tech,
    page,
  }) => {
    await hookUp(tech, ['Red clamp is on', 'Red clamp is on', 'Black clamp is on', 'Black clamp is on']);
    await tech.tap('Make safe');
    const go = page.locator('vt-make-safe-dialog .go:not([aria-disabled])');
    await expect(go).toHaveText('Done: Black off casualty ground point');
    await go.dblclick();
    await expect(go).toHaveText('Done: Black off donor battery -');
    // The second half comes in the moment in which the button has become the next act.
    await go.evaluate(async (button: HTMLElement) => {
      const changed = new Promise((done) =>
        new MutationObserver(done).observe(button, { subtree: true, characterData: true, childList: true }),
      );
      button.click();
      await changed;
      button.click();
    });
    await expect(go).toHaveText('Done: Red off donor battery +');
    await tech.saved();
    const logged = (await (await page.request.get(`${tech.url}/api/jobs/${jobIdOf(page)}`)).json()) as {
      events: { type: string }[];
    };
    expect(logged.events.filter(({ type }) => type === 'clamp.detached').length).toBe(2);
  });
});

/** A figure is typed without scrolling: every key lies whole above the drawing's strip. */
async function expectPadWhole(page: Page): Promise<void> {
  const strip = (await page.getByRole('complementary', { name: 'Circuit' }).boundingBox())!;
  const keys = page.getByLabel('Number pad').getByRole('button');
  await expect(keys).toHaveCount(13);
  for (const key of await keys.all()) {
    const box = (await key.boundingBox())!;
    expect(box.y + box.height, await key.innerText()).toBeLessThanOrEqual(strip.y);
  }
}

test('on a phone a figure says what it means above the pad, and what was taken stands before the next', async ({
  tech,
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.route('**/api/instruments/stream', (route) => route.abort());
  // A string of two has the most readings to choose from, and so the least room.
  await tech.at('measure', 'hulvane-cornice-9', { ambientC: -9, symptom: 'one-click' });
  const pad = page.getByLabel('Number pad');
  // Nothing is linked and nothing was taken: the pad is what there is. It keeps its place whatever is said of what was typed so far.
  const place = await pad.boundingBox();
  for (const reading of ['Key on', 'Rest volts, battery 1']) {
    await page.getByRole('radio', { name: reading }).click();
    for (const digit of '708') {
      await pad.getByRole('button', { name: digit, exact: true }).click();
      expect(await pad.boundingBox(), reading).toEqual(place);
    }
    if (reading === 'Key on')
      for (let i = 0; i < 3; i++) await pad.getByRole('button', { name: 'Delete last' }).click();
  }
  const meaning = page.locator('.preview');
  await expect(meaning).toBeInViewport({ ratio: 1 });
  expect((await meaning.boundingBox())!.y).toBeLessThan((await pad.boundingBox())!.y);
  await expectPadWhole(page);
  for (let i = 0; i < 3; i++) await pad.getByRole('button', { name: 'Delete last' }).click();
  await tech.read('1185');
  await expect(pad).toBeHidden();
  const taken = page.locator('vt-taken li').first();
  await expect(taken).toContainText('11.85 V');
  await expect(taken).toBeInViewport({ ratio: 1 });
  await tech.tap('Type a figure');
  await expect(tech.button('Close the pad')).toBeFocused();
  await expectPadWhole(page);
  await tech.tap('Close the pad');
  await expect(pad).toBeHidden();
  await expect(tech.button('Type a figure')).toBeFocused();
  // Keys of a keyboard need no pad to be opened first.
  await page.keyboard.type('96');
  await expect(page.locator('.display')).toContainText('9.6');
  await expect(pad).toBeVisible();
});

test('a phone asks for every stop to be seen before it is called safe', async ({ tech, page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await tech.at('scene', 'ardwen-solace');
  await tech.next('not seen yet');
  await tech.next('Safe to work here');
  await tech.expectStage('Checks');
});

test('a phone shows the whole job and every page without sideways scrolling', async ({ tech, page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await tech.at('scene', 'ardwen-solace');
  for (const stage of STAGES) {
    await tech.openStage(stage);
    await tech.expectStage(stage as Parameters<typeof tech.expectStage>[0]);
    const wide = await page.evaluate(() => {
      const stageBox = document.querySelector('.stage');
      return [
        document.documentElement.scrollWidth - innerWidth,
        stageBox ? stageBox.scrollWidth - stageBox.clientWidth : 0,
      ];
    });
    expect(wide, stage).toEqual([0, 0]);
    await expect(page.locator('.next')).toBeInViewport();
    for (const { words, px } of await drawnWords(page))
      expect(px, `${words} of the drawing at ${stage}`).toBeGreaterThanOrEqual(11.9);
    if (stage === 'Measure') {
      await tech.tap('Type a figure');
      await expectPadWhole(page);
    }
    expect(await foreignSigns(page), stage).toEqual([]);
    // A phone has the same parts in another order: one stage stands for all.
    if (stage === 'Measure') await expectAccessible(page, `${stage} on a phone`);
  }
  await tech.tap('Full');
  await expect(tech.button('Close')).toBeVisible();
  for (const path of PAGES) {
    await page.goto(`${tech.url}/${path}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide, path).toBe(0);
    expect(await foreignSigns(page), path).toEqual([]);
    if (path === 'board') await expectAccessible(page, `${path} on a phone`);
  }
});

test('the atlas finds a machine by any of its words and shows its points', async ({ page, server }) => {
  await page.goto(`${server.url}/atlas`);
  await page.getByRole('searchbox').fill('24 v piste');
  await page.getByRole('button', { name: /Cornice 9/ }).click();
  await expect(page.getByRole('heading', { name: /Cornice 9/ })).toBeVisible();
  await expect(
    page.locator('vt-entry-view').getByText('Middle joint is live at 12 V to the chassis.'),
  ).toBeVisible();
  await page.getByRole('searchbox').fill('nothing like it');
  await expect(page.getByText('No machine found.')).toBeVisible();
});

test('a figure of the bench is changed by a finger on its curve', async ({ tech, page }) => {
  await page.goto(`${tech.url}/bench/leads`);
  const curve = page.locator('vt-curve-chart');
  const section = page.getByRole('textbox', { name: /^section/ });
  const rpm = async (): Promise<number> =>
    parseFloat((await page.locator('.results dd').nth(3).textContent())!);
  await expect(
    curve.getByRole('img', { name: /this engine from a flat battery over section: \d+ rpm at 25 mm²/ }),
  ).toBeVisible();
  const box = (await curve.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 115, box.y + box.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => Number(await section.inputValue())).toBeGreaterThan(65);
  const thick = await rpm();
  await section.fill('6');
  await expect(curve.getByRole('img', { name: /at 6 mm²/ })).toBeVisible();
  expect(await rpm()).toBeLessThan(thick);
});

test('a stage that was left is let go, with all that it showed @long', async ({ tech, page, context }) => {
  await tech.at('scene', 'brinmoor-pella');
  const devtools = await context.newCDPSession(page);
  await devtools.send('Performance.enable');
  const nodesHeld = async (): Promise<number> => {
    await tech.openStage('Hook up');
    for (let i = 0; i < 3; i++) await devtools.send('HeapProfiler.collectGarbage');
    const { metrics } = await devtools.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'Nodes')!.value;
  };
  const STAGES = ['Checks', 'Measure', 'Plan', 'Verdict'] as const;
  for (const stage of STAGES) await tech.openStage(stage);
  const before = await nodesHeld();
  for (let i = 0; i < 4; i++) for (const stage of STAGES) await tech.openStage(stage);
  // One visit of Checks alone shows more.
  await expect.poll(async () => (await nodesHeld()) - before, { timeout: 20_000 }).toBeLessThan(100);
});

test('no page writes styles into itself, and the policy of what it may load refuses them', async ({
  page,
  server,
}) => {
  const answered = await page.goto(`${server.url}/bench`);
  const policy = (answered!.headers()['content-security-policy'] ?? '').split(';');
  expect(policy).toContain("style-src 'self'");
  // A chart draws itself, and a style that stands in the page is refused.
  await expect(page.locator('vt-chart svg text').first()).toBeVisible();
  const { written, sheets, isRefused } = await page.evaluate(() => {
    const intruder = document.createElement('style');
    intruder.textContent = 'body { padding-top: 77px; }';
    const before = document.querySelectorAll('style').length;
    document.head.append(intruder);
    const padding = getComputedStyle(document.body).paddingTop;
    intruder.remove();
    return { written: before, sheets: document.adoptedStyleSheets.length, isRefused: padding !== '77px' };
  });
  expect(written).toBe(0);
  expect(sheets).toBeGreaterThan(5);
  expect(isRefused).toBe(true);
});
