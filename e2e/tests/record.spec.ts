import type { Page } from '@playwright/test';
import { expect, test } from '../support/fixtures';
import type { Technician } from '../support/technician';

/** A new call typed in by hand for a plate; the model is chosen only where the plate is new. */
async function call(page: Page, tech: Technician, plate: string, model: RegExp | null): Promise<void> {
  await tech.openBoard();
  await page.getByRole('button', { name: 'New call' }).click();
  await page.getByLabel('Plate, if it has one').fill(plate);
  if (model) {
    await page.getByLabel('Vehicle or machine').fill('pella');
    await page.getByRole('option', { name: model }).click();
  } else await page.getByRole('radiogroup', { name: 'Known vehicles' }).getByRole('radio').first().click();
  await page.getByLabel('Place').fill(`Lane of ${plate}`);
  await page.getByRole('button', { name: 'Save the call' }).click();
  await page
    .getByRole('button', { name: new RegExp(`Lane of ${plate}`) })
    .last()
    .click();
  await tech.expectStage('Scene');
}

/** Finds the battery at the end of its life, and does every step of changing it but the last. */
async function toChange(page: Page, tech: Technician): Promise<void> {
  await tech.toMeasure('slow crank');
  await tech.read('1254');
  await page.getByRole('radio', { name: 'The battery' }).click();
  await tech.read('240');
  await tech.openStage('Verdict');
  await page.getByRole('radio', { name: 'Change battery' }).click();
  await expect(page.locator('.step')).toBeVisible();
  for (;;) {
    const act = page.locator('.step .act');
    if (!(await act.isVisible())) break;
    const title = (await act.textContent())!.trim();
    await tech.tap('Done');
    await expect(page.getByText(title, { exact: true })).toHaveCount(0);
  }
}

/** A plate that no other run has used. */
const plate = (first: string): string => `${first} ${String(Date.now()).slice(-6)}`;

test('two vehicles of one model have each their own history: one was flat before, the other was not @long', async ({
  tech,
  page,
}) => {
  const [one, other] = [plate('QA'), plate('QC')];
  await call(page, tech, one, /Pella 1.2/);
  await tech.toMeasure('rapid clicking');
  await tech.read('1120');
  await tech.saved();
  await call(page, tech, other, /Pella 1.2/);
  await tech.toMeasure('rapid clicking');
  await tech.read('1270');
  await tech.openStage('Verdict');
  await expect(page.locator('.move', { hasText: 'Flat before' })).toHaveCount(0);
  await tech.saved();
  // The second visit of the first, by a plate typed otherwise.
  await call(page, tech, one.toLowerCase().replace(' ', ''), null);
  await tech.toMeasure('rapid clicking');
  await tech.read('1215');
  await tech.openStage('Verdict');
  await expect(page.locator('.move', { hasText: 'Flat before' })).toHaveCount(1);
  await page.getByRole('link', { name: 'Vehicle', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: one })).toBeVisible();
  await expect(page.locator('vt-record-list li')).toHaveCount(2);
  await page.getByRole('link', { name: 'Vehicles', exact: true }).click();
  await page.getByRole('searchbox').fill(other.replace(' ', '-'));
  await page.getByRole('link', { name: new RegExp(other) }).click();
  await expect(page.locator('vt-record-list li')).toHaveCount(1);
});

test('a vehicle over visits: its battery is changed, and the old one goes on in another vehicle with its record @long', async ({
  tech,
  page,
}) => {
  const [one, other] = [plate('QD'), plate('QF')];
  await call(page, tech, other, /Pella 1.2/);
  await tech.saved();
  await call(page, tech, one, /Pella 1.2/);
  await toChange(page, tech);
  await page.getByLabel('Ah').fill('45');
  await page.getByLabel('cold-cranking A').fill('430');
  await tech.tap('It is fitted');
  // Saved is said of what was tapped once the tap shows.
  await expect(page.getByText('Its record begins today')).toBeVisible();
  await tech.saved();
  await page.goto(`${tech.url}/batteries`);
  // The old one stands at the depot now; by far the newest there.
  const old = page
    .getByRole('listitem')
    .filter({ hasText: '44 Ah, 420 A EN' })
    .filter({ hasText: 'at the depot' })
    .last();
  const code = (await old.locator('strong').textContent())!.trim();
  await page.getByLabel('Code on the label').fill(`${code.slice(0, 3)} ${code.slice(3)}`.toLowerCase());
  await tech.tap('Open its record');
  await expect(page.getByRole('heading', { level: 1, name: `Battery ${code}` })).toBeVisible();
  await expect(page.getByText('57 %').first()).toBeVisible();
  await tech.tap('Charged at the depot');
  await expect(page.getByRole('listitem').filter({ hasText: 'charged' })).toBeVisible();
  // Out of the other vehicle its own must come first: the place is taken until then.
  await tech.tap('Fitted into a vehicle');
  await page.getByLabel('Plate or number of the vehicle').fill(other);
  await page.getByRole('button', { name: 'as battery 1' }).click();
  await expect(page.getByRole('alert')).toContainText('Another battery sits there');
  const record = page.url();
  await page.goto(`${tech.url}/vehicles`);
  await page.getByRole('searchbox').fill(other);
  await page.getByRole('link', { name: new RegExp(other) }).click();
  await page
    .locator('dd')
    .getByRole('link', { name: /^[A-Z0-9]{6}$/ })
    .click();
  await tech.tap('Taken out, to the depot');
  await page.goto(record);
  await tech.tap('Fitted into a vehicle');
  await page.getByLabel('Plate or number of the vehicle').fill(other);
  await page.getByRole('button', { name: 'as battery 1' }).click();
  await expect(page.getByRole('link', { name: other })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: `fitted, ${other}` })).toBeVisible();
  await expect(page.getByText('57 %').first()).toBeVisible();
});

test('a spare of the van goes in: it leaves the van, and its record goes on in the vehicle @long', async ({
  tech,
  page,
}) => {
  const one = plate('QG');
  await call(page, tech, one, /Pella 1.2/);
  await toChange(page, tech);
  const spare = page
    .getByRole('radiogroup', { name: 'The battery that went in' })
    .getByRole('radio', { name: /of the van, EFB/ });
  const code = (await spare.textContent())!.trim().split(' ')[0]!;
  await spare.click();
  await tech.tap('It is fitted');
  await expect(page.getByText('Its record goes on here.')).toBeVisible();
  await tech.saved();
  await page.goto(`${tech.url}/battery/${code}`);
  await expect(page.getByRole('link', { name: one })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: `fitted, ${one}` })).toBeVisible();
  await page.goto(`${tech.url}/batteries`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Van 1' }).first()).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: code })).toHaveCount(0);
});

test('a job from van 2, with a pack that was added in the interface and is used down to empty @long', async ({
  tech,
  page,
}) => {
  // The starter is turned for ten seconds of real time, twice.
  await page.goto(`${tech.url}/kit`);
  const van = page.getByRole('region', { name: 'Van 2, Heron' });
  await van.getByRole('button', { name: 'Add kit' }).click();
  await page.getByRole('radiogroup', { name: 'Kind' }).getByRole('radio', { name: 'pack' }).first().click();
  await page.getByRole('dialog').getByLabel('Name', { exact: true }).fill('Spent pack');
  await page.getByLabel('Peak, A').fill('9');
  await expect(page.getByRole('alert')).toContainText('Peak must be');
  await page.getByLabel('Peak, A').fill('900');
  await page.getByLabel(/Holds at 12 V/).fill('0.5');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const pack = page.getByRole('listitem').filter({ hasText: 'Spent pack' });
  await expect(pack.getByText('100 % left')).toBeVisible();

  const title = await tech.newCall('brinmoor-pella');
  await tech.openBoard();
  const row = page.getByRole('listitem').filter({ hasText: title });
  await row.getByRole('button', { name: /^About call/ }).click();
  await page.getByRole('dialog').getByRole('combobox').first().selectOption({ label: 'Van 2, Heron' });
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('button', { name: title }).click();
  await tech.expectStage('Scene');
  await tech.toMeasure('rapid clicking');
  await tech.read('1190');
  await tech.next('Go on to Plan');
  await expect(page.getByRole('radio', { name: /800 A peak/ })).toHaveCount(0);
  await tech.take(/Spent pack/);
  await tech.workSteps();
  for (const [nth, outcome] of ['Slow', 'It runs'].entries()) {
    if (nth === 0) await tech.next(/now, try/);
    else {
      // The best choice becomes the action once it is worked out: here the same again is asked for.
      await page.getByRole('radio', { name: /^Again, as it is/ }).click();
      await tech.next(/Crank sooner/);
      await page.locator('textarea').fill('short tries');
      await page.getByRole('button', { name: /log it/ }).click();
    }
    // The starter turns this long: what it takes out of the pack is computed from it.
    await page.waitForTimeout(10_000);
    await tech.tap(outcome);
  }
  await tech.saved();
  await page.goto(`${tech.url}/kit`);
  await expect(pack.getByText(/^\d % left$/)).toBeVisible();
});
