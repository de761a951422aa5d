import type { EventEntry } from '@voltrek/core/job';
import { expect, test } from '../support/fixtures';

test('petrol hatchback, donor and heavy leads, from call to log', async ({ tech, page }) => {
  const title = await tech.openJob('brinmoor-pella');
  await tech.toMeasure('rapid clicking');
  await tech.read('1190');
  await expect(page.getByText(/Low, .* Charge before judging/)).toBeVisible();
  await tech.next('Go on to Plan');
  await tech.tap('In depth');
  await expect(page.getByText(/Odds of a start/)).toContainText(/in 100, \d+ to \d+ by 100 machines/);
  await tech.take(/Service van, heavy set/);
  expect(await tech.workSteps()).toEqual([
    'Everything off, both sides',
    'Red on casualty battery +',
    'Red on donor battery +',
    'Black on donor battery -',
    'Black on casualty ground point',
    'Start the donor',
    'Let it take charge',
  ]);
  await expect(page.getByText(/\d+ in 100/).first()).toBeVisible();
  await tech.tryOnce('It runs');
  expect(await tech.workSteps()).toEqual([
    'Switch a big consumer on',
    'Stop the donor',
    'Black off casualty ground point',
    'Black off donor battery -',
    'Red off donor battery +',
    'Red off casualty battery +',
  ]);
  await tech.tap('Clock');
  await tech.next('Read charging volts');
  await tech.read('1420');
  await tech.read('1405');
  await tech.openStage('Verdict');
  await tech.close('Charge first');
  await page.goto(`${tech.url}/log`);
  await page.getByRole('searchbox').fill(title);
  await page.getByRole('link', { name: new RegExp(`${title}.*Charge first`) }).click();
  await tech.expectStage('Verdict');
  await expect(page.getByText('Rest volts: 11.90 V')).toBeVisible();
});

/** It was started with what is joined, and everything is still on. */
const STARTED: readonly EventEntry[] = [
  ['attempt.started', {}],
  ['attempt.ended', { outcome: 'started', seconds: 3, lowestVolts: null }],
];

test('start-stop car through the posts in the bay, lithium pack', async ({ tech }) => {
  const before = { symptom: 'slow-crank', restVolts: [12.05], plan: 'pack-lithium@12' } as const;
  await tech.at('hookup', 'ardwen-solace', before);
  expect(await tech.workSteps()).toEqual([
    'Everything off, both sides',
    'Red on casualty red post',
    'Black on casualty ground point',
    'Look at the guard lamp',
    'Switch the pack on',
  ]);
  await tech.at('cleardown', 'ardwen-solace', { ...before, joined: true, then: STARTED });
  expect(await tech.workSteps()).toEqual([
    'Switch a big consumer on',
    'Switch the pack off',
    'Black off casualty ground point',
    'Red off casualty red post',
  ]);
});

test('hybrid wakes on the lead-acid pack and is never cranked @long', async ({ tech, page }) => {
  await tech.at('measure', 'tolsey-conflux', { symptom: 'no-doors' });
  await tech.read('1040');
  await expect(page.getByText(/Dead cell or deeply discharged/)).toBeVisible();
  await tech.next('Go on to Plan');
  await expect(page.getByText('cannot hold a steady 12 V for a wake-up')).toBeVisible();
  await tech.take(/Lead-acid pack, at 12 V/);
  await tech.workSteps();
  await tech.expectStage('Wake');
});

test('EV that will not open: latch wires, then a still donor @long', async ({ tech, page }) => {
  await tech.openJob('kestow-parcel-e');
  await tech.next('Safe to work here');
  await tech.tap('no doors, no screens');
  await tech.next('Go on to Locate');
  await expect(
    page
      .locator('vt-locate-points')
      .getByText('Red wire to + of the latch source, black to -: the bonnet unlocks.'),
  ).toBeVisible();
  await tech.tap('red cover or cable', 'meter reads plus');
  await tech.read('1160');
  await tech.next('Go on to Plan');
  await tech.take(/Service van, heavy set/);
  const steps = await tech.workSteps();
  expect(steps).not.toContain('Start the donor');
  await tech.tryOnce('Awake, ready');
  await tech.workSteps();
  await tech.next('Go on to the verdict');
  // Dead once in service is near its end, but flat is no proof of it: charge, judge, then usually replace.
  await tech.close('Charge first');
});

test('motorcycle from the van with its engine off; a fuel tap is not the battery @long', async ({ tech }) => {
  await tech.at('checks', 'ostrel-fell-450', { symptom: 'brisk-no-fire' });
  await tech.tap('was shut');
  await tech.saved();
  const before = { symptom: 'brisk-no-fire', restVolts: [12.62], plan: 'donor-van-1+leads-light' } as const;
  await tech.at('hookup', 'ostrel-fell-450', before);
  expect(await tech.workSteps()).not.toContain('Start the donor');
  await tech.at('verdict', 'ostrel-fell-450', {
    ...before,
    then: [['finding.recorded', { check: 'fuel-tap', found: 'fault' }]],
  });
  await expect(
    tech.page.getByRole('heading', { level: 2, name: 'Not the battery: fuel or engine' }),
  ).toBeVisible();
});

test('24 V piste machine: each battery by itself, then 12 V across the weak one only @long', async ({
  tech,
  page,
}) => {
  await tech.openJob('hulvane-cornice-9', -9);
  await tech.toMeasure('slow crank');
  // A string has the most readings to choose from, and still nothing scrolls.
  const beyond = await page.locator('.stage').evaluate((stage) => stage.scrollHeight - stage.clientHeight);
  expect(beyond).toBe(0);
  await tech.read('1185');
  await tech.read('1255');
  await tech.next('Go on to Plan');
  await expect(page.getByText('gives 12 V, this is 24 V').first()).toBeVisible();
  await tech.take(/Lead-acid pack.*across battery 1/);
  const steps = await tech.workSteps();
  expect(steps.slice(1, 3)).toEqual(['Red on casualty battery 1 +', 'Black on casualty ground point']);
  await tech.tryOnce('It runs');
  await tech.workSteps();
  await tech.openStage('Verdict');
  // Each battery has its own standing, and what tells it.
  await expect(page.getByRole('heading', { name: /^battery 1: flat, otherwise sound/i })).toBeVisible();
  await expect(page.getByRole('heading', { name: /^battery 2: sound/i })).toBeVisible();
  await tech.openStage('Measure');
  await page.getByRole('radio', { name: 'The battery' }).click();
  await page
    .getByRole('radio', { name: /battery 2/ })
    .first()
    .click();
  await tech.read('980');
  await expect(page.locator('vt-taken li').first()).toContainText('battery 2');
  await tech.openStage('Verdict');
  await tech.close('Charge first');
});

test('a mild morning after a hard night: the flat battery is still ice @long', async ({ tech, page }) => {
  await tech.at('scene', 'tolsey-verge-16', { ambientC: 3 });
  for (let i = 0; i < 16; i++) await tech.tap('It was colder');
  await tech.toMeasure('silent, dash dead');
  await tech.read('1140');
  await tech.expectStage('Stop');
  await expect(page.getByRole('heading', { name: 'Battery frozen' })).toBeVisible();
});

test('a frozen battery stops the job by its reading alone', async ({ tech, page }) => {
  await tech.at('measure', 'tolsey-verge-16', { ambientC: -8, symptom: 'silence' });
  await tech.read('910');
  await tech.expectStage('Stop');
  await expect(page.getByRole('heading', { name: 'Battery frozen' })).toBeVisible();
  for (const stage of ['Plan', 'Hook up', 'Crank']) {
    await tech.openStage(stage);
    await tech.expectStage('Stop');
  }
  await tech.next('Stopped. Go to the verdict');
  await tech.close('Unsafe');
});

test('a red flag on the scene stops it; withdrawing one asks why', async ({ tech, page }) => {
  await tech.at('scene', 'wendry-harbour-40', { ambientC: -2 });
  await tech.tap('Fuel smell or spill');
  await expect(page.getByRole('alert')).toContainText('Vapour catches');
  await tech.openStage('Hook up');
  await tech.expectStage('Stop');
  await tech.tap('It no longer stands');
  await expect(tech.button('Go on, and log it')).toBeDisabled();
  await page.getByLabel('Reason, kept in the log').fill('cap was off, locker aired for ten minutes');
  await tech.tap('Go on, and log it');
  await tech.expectStage('Hook up');
  await expect(page.locator('.next')).toContainText('Choose a source in Plan');
});

test('vintage tractor with its plus on the body: the order turned round, no donor @long', async ({
  tech,
  page,
}) => {
  await tech.openJob('tolsey-haymere-15');
  await tech.safeToWork();
  await tech.tap('slow crank');
  await tech.next('Go on to Locate');
  await expect(page.getByText(/Plus is on the body here/)).toBeVisible();
  await expect(tech.button('Park the donor')).toBeHidden();
  await tech.tap('+ mark or P', 'meter reads plus');
  await tech.read('1190');
  await tech.next('Go on to Plan');
  await expect(page.getByText(/its body is on minus, this one on plus: never joined/).first()).toBeVisible();
  await tech.take(/Lithium pack/);
  await expect(page.getByText('Black on casualty battery -')).toBeVisible();
  expect(await tech.workSteps()).toEqual([
    'Everything off, both sides',
    'Black on casualty battery -',
    'Red on casualty ground point',
    'Look at the guard lamp',
    'Switch the pack on',
  ]);
  await tech.at('cleardown', 'tolsey-haymere-15', {
    ...{ symptom: 'slow-crank', restVolts: [11.9], plan: 'pack-lithium@12' },
    ...{ joined: true, then: STARTED },
  });
  expect(await tech.workSteps()).toEqual([
    'Switch a big consumer on',
    'Switch the pack off',
    'Red off casualty ground point',
    'Black off casualty battery -',
  ]);
});
