import { expect, test } from '../support/fixtures';
import type { Technician } from '../support/technician';

/** @returns the title of its call */
async function toPlan(tech: Technician, modelId: string, digits: string): Promise<string> {
  const title = await tech.at('measure', modelId, { symptom: 'one-click' });
  await tech.read(digits);
  await tech.next('Go on to Plan');
  await tech.expectStage('Plan');
  return title;
}

test('the chosen option in depth: crank in time, wait, leads, figures', async ({ tech, page }) => {
  await toPlan(tech, 'brinmoor-pella', '1180');
  await tech.tap('In depth');
  await page.getByRole('radio', { name: /Service van, light set/ }).click();
  await expect(page.getByRole('img', { name: /Crank in time: dips to/ })).toBeVisible();
  await page.getByRole('tab', { name: 'Wait' }).click();
  await expect(page.locator('.say')).toContainText(
    /enough, more buys little|at once|Still climbing|does not save/,
  );
  await page.getByRole('tab', { name: 'Leads' }).click();
  await expect(page.getByRole('img', { name: /Lead sets for this rescue/ })).toBeVisible({ timeout: 20_000 });
  await page.getByRole('radio', { name: 'rpm', exact: true }).click();
  await page.getByRole('tab', { name: 'Figures' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'charge of the weakest battery' })).toContainText(
    'typed',
  );
  await expect(page.getByRole('listitem').filter({ hasText: 'its resistance against new' })).toContainText(
    'assumed',
  );
});

test('a figure changed by hand is computed again, and what is old says so', async ({ tech, page }) => {
  await toPlan(tech, 'brinmoor-pella', '1180');
  await tech.tap('In depth');
  await page.getByRole('radio', { name: /Service van, light set/ }).click();
  await expect(page.locator('.odds strong')).toBeVisible();
  const before = await page.locator('.odds').textContent();
  await page.getByRole('tab', { name: 'Figures' }).click();
  await page.getByLabel('lead section, mm²').fill('2');
  await page.getByLabel('lead section, mm²').press('Tab');
  await expect(page.locator('.odds')).not.toHaveText(before!, { timeout: 20_000 });
  await expect(page.locator('.stale')).toBeHidden({ timeout: 20_000 });
  await page.getByLabel('lead section, mm²').fill('-5');
  await page.getByLabel('lead section, mm²').press('Tab');
  await expect(page.getByRole('alert')).toContainText('must be between 1 and 240');
});

test('ways are ranked by minutes for how sure one wants to be, and the action says when it runs', async ({
  tech,
  page,
}) => {
  await toPlan(tech, 'brinmoor-pella', '1180');
  const ways = page.getByRole('radiogroup', { name: /Ways to get it going/ }).getByRole('radio');
  await expect(ways.first()).toContainText('in 100');
  await expect(page.locator('.next')).toContainText(/Take: .+, running by \d\d:\d\d/);
  // Nine in ten of what the surest of them reaches; to roll it stands last, however sure.
  const rows = (await ways.allTextContents()).filter((text) => !text.includes('Rolling start'));
  const figures = rows.map((text) => ({
    minutes: Number(/^\s*(\d+)/.exec(text)?.[1]),
    odds: Number(/(\d+) in 100/.exec(text)?.[1]),
  }));
  const surest = Math.max(...figures.map(({ odds }) => odds));
  const sure = figures.filter(({ odds }) => odds > 0.9 * surest + 1).map(({ minutes }) => minutes);
  expect(sure.length).toBeGreaterThan(1);
  expect(sure).toEqual([...sure].sort((a, b) => a - b));
  // A flat battery by itself is there to be seen, under what is not likely, and never shines.
  const own = page.getByRole('radio', { name: /Nothing joined/ });
  await own.click();
  await expect(page.locator('.next.plain')).toContainText('crank it as it is');
  await page.getByRole('slider', { name: 'As sure as' }).press('Home');
  await expect(page.locator('output')).toHaveText('1 in 2');
});

test('a bad joint lowers what the plan promises, and mending it first is a way', async ({ tech, page }) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'one-click', restVolts: [12.5] });
  await page.getByRole('radio', { name: 'Over joints' }).click();
  await tech.read('2.5');
  await tech.openStage('Plan');
  const mend = page.getByRole('radio', { name: /Mend the joint, then nothing joined/ });
  await expect(mend).toContainText('mend the joint');
  await mend.click();
  await tech.next('Mend the joint first');
  await expect(page.getByRole('dialog', { name: 'Clean and tighten the positive clamp' })).toBeVisible();
});

test('what a try told weighs what is proposed next @long', async ({ tech, page }) => {
  await toPlan(tech, 'brinmoor-pella', '1270');
  await page.getByRole('radio', { name: /Nothing joined/ }).click();
  await tech.next('Go on: crank it as it is');
  await tech.next(/Crank now/);
  await tech.tap('Brisk, no fire');
  const now = page.getByRole('radiogroup', { name: 'Next steps, best first' });
  await expect(now.getByRole('radio', { name: /Look elsewhere/ })).toContainText('in 100');
  await expect(page.getByText(/That no source starts it: \d+ in 100\. Most likely/)).toBeVisible();
  await now.getByRole('radio', { name: /Again, as it is/ }).click();
  await expect(page.locator('.next')).toContainText('Rest');
  await now.getByRole('radio', { name: /Look elsewhere/ }).click();
  await tech.next('Look elsewhere: back to Checks');
  await tech.expectStage('Checks');
});

test('two options side by side', async ({ tech, page }) => {
  await toPlan(tech, 'brinmoor-pella', '1180');
  await tech.tap('In depth', 'Side by side');
  const table = page.getByRole('table');
  await expect(table).toContainText('at the starter');
  await page
    .getByRole('combobox', { name: 'Compare with' })
    .selectOption({ label: 'Capacitor booster, 6 x 350 F' });
  await expect(table.getByRole('row', { name: /odds of a start/ })).toContainText(/in 100/);
});

test('the plan goes into the log with its figures, and the crank is compared with it', async ({
  tech,
  page,
}) => {
  await toPlan(tech, 'brinmoor-pella', '1180');
  await tech.take(/Service van, heavy set/);
  await tech.workSteps();
  await tech.next(/Crank now/);
  await page.getByLabel('Lowest volts at the posts, if read').fill('7.2');
  await tech.tap('Slow');
  await expect(page.locator('.tries')).toContainText(
    /Plan said \d+\.\d V at the posts, -\d\.\d V: lower than the plan said/,
  );
  await tech.saved();
  const jobId = /job\/([0-9a-f-]+)/.exec(page.url())![1]!;
  const job = (await (await page.request.get(`${tech.url}/api/jobs/${jobId}`)).json()) as {
    events: {
      type: string;
      data: { waitMinutes: number; odds: number; inputs: { key: string; origin: string }[] };
    }[];
  };
  const { data } = job.events.find((e) => e.type === 'plan.chosen')!;
  expect(data.waitMinutes).toBeGreaterThanOrEqual(2);
  expect(data.odds).toBeGreaterThan(0.5);
  expect(data.inputs.find((i) => i.key === 'soc')!.origin).toBe('typed');
});

test('an ordinary mains charger comes off before the crank @long', async ({ tech }) => {
  await tech.at('plan', 'brinmoor-pella', {
    scene: { mainsNear: true },
    symptom: 'one-click',
    restVolts: [11.95],
  });
  await tech.take(/Mains charger/);
  expect(await tech.workSteps(/Charged/)).toEqual([
    'Everything off, both sides',
    'Set the charger, unplugged',
    'Red on casualty battery +',
    'Black on casualty ground point',
    'Plug the charger in',
    'Switch the charger on',
    'Let it take charge',
  ]);
  await tech.next('Charged. Take the charger off first');
  expect(await tech.workSteps(/Read the rest volts/)).toEqual([
    'Switch the charger off',
    'Unplug the charger',
    'Black off casualty ground point',
    'Red off casualty battery +',
  ]);
  // A reading of before the charge is no longer its own.
  await tech.next('Charged. Read the rest volts again');
  await tech.read('1255');
  await tech.openStage('Crank');
  await tech.tryOnce('It runs');
  await tech.expectStage('Clear down');
});

test('the bench reckons, keeps its values in the address, and refuses what cannot be', async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench/leads?lengthM=4.5&sectionMm2=16`);
  await expect(page.getByLabel('length, one way')).toHaveValue('4.5');
  const lost = page.locator('.results div').filter({ hasText: 'lost in leads and clamps' });
  const before = await lost.textContent();
  await page.getByRole('radio', { name: 'copper-clad' }).click();
  await expect(lost).not.toHaveText(before!);
  await expect(page).toHaveURL(/conductor=copper-clad-aluminium/);
  await page.getByRole('textbox', { name: /^section/ }).fill('0');
  await expect(page.getByRole('alert')).toContainText('section must be between 1 and 240 mm²');
  await page.getByRole('button', { name: 'Usual values' }).click();
  await expect(page.getByRole('textbox', { name: /^section/ })).toHaveValue('25');
  await page.getByRole('link', { name: '24 V string' }).click();
  await expect(page.getByRole('heading', { level: 1, name: '24 V string' })).toBeVisible();
  await expect(page.getByText('judge and charge each by itself')).toBeVisible();
  await page.getByRole('button', { name: 'Copy as text' }).click();
  await expect(page.getByRole('button', { name: 'Copied' })).toBeVisible();
});

test('a lead set is measured while it is joined, and the kit tells what it has lost @long', async ({
  tech,
  page,
}) => {
  await tech.at('crank', 'brinmoor-pella', {
    symptom: 'one-click',
    restVolts: [11.85],
    plan: 'donor-van-1+leads-heavy',
    joined: true,
  });
  const measure = page.locator('vt-measure-leads');
  for (const volts of ['1080', '1078', '1082']) {
    await measure.getByRole('button', { name: /^Measure Heavy set/ }).click();
    await measure.getByLabel('At the source, V').fill('1290');
    await measure.getByLabel('At the casualty, V').fill(volts);
    await measure.getByLabel('Through a lead, A').fill('180');
    await expect(measure.getByRole('status')).toContainText(/\d\.\d\d times the resistance of a new set/);
    await measure.getByRole('button', { name: 'Note it' }).click();
  }
  await expect(measure.getByText(/^Noted:/)).toHaveCount(3);
  await tech.saved();
  await page.goto(`${tech.url}/kit`);
  const row = page.getByRole('listitem').filter({ hasText: 'Heavy set' }).first();
  await expect(row).toContainText(/Measured over 3 uses: [12]\.\d\d times .*look at its clamps/);
  await page.goBack();
  await tech.expectStage('Crank');
  for (let left = 2; left >= 0; left--) {
    await tech.tap('Undo');
    await expect(measure.getByText(/^Noted:/)).toHaveCount(left);
  }
  await tech.saved();
  await page.goto(`${tech.url}/kit`);
  await expect(row).not.toContainText('Measured over');
});

test('another van is asked, comes, and what it carries is joined like one’s own @long', async ({
  tech,
  page,
}) => {
  const title = await toPlan(tech, 'brinmoor-pella', '1150');
  const brought = page.getByRole('radio', { name: /from Van 2/ });
  await brought.first().click();
  const coming = page.locator('vt-van-coming');
  const before = Number(await brought.first().locator('.minutes strong').textContent());
  await coming.getByRole('button', { name: 'Five minutes more' }).click();
  await expect(brought.first().locator('.minutes strong')).toHaveText(String(before + 5));
  await tech.next(/Ask Van 2.* to come/);
  await expect(coming).toContainText(/Van 2.* was asked at \d\d:\d\d, due \d\d:\d\d/);
  await tech.saved();
  // The Board tells it to everybody, and to those who are meant.
  const job = page.url();
  const row = page.getByRole('button', { name: title });
  await tech.openBoard();
  await expect(row).toContainText(/Van 2.* asked for \d\d:\d\d/);
  await page.evaluate(() => localStorage.setItem('voltrek.van', 'van-2'));
  await page.reload();
  await expect(row).toContainText(/your van is asked for \d\d:\d\d/);
  await page.evaluate(() => localStorage.setItem('voltrek.van', 'van-1'));
  await page.goto(job);
  await tech.tap('It is here');
  await expect(coming).not.toContainText('was asked');
  await expect(page.getByRole('radio', { name: /from Van 2/ })).toHaveCount(0);
  await tech.take(/Lithium pack, 500 A peak/);
  await tech.workSteps();
  await tech.saved();
});
