import { expect, test } from '../support/fixtures';

test('an unknown machine is found by clues, kept in the atlas, and the job goes on with it @long', async ({
  tech,
  page,
}) => {
  await tech.at('scene', 'unknown-car');
  await tech.next('Safe to work here');
  await tech.next('Go on to Locate');
  await expect(page.getByText('unknown machine: find its battery first')).toBeVisible();
  const places = page.getByRole('group', { name: /Look here/ }).getByRole('button');
  await expect(places.first()).toContainText('front bay');
  await tech.tap('bay has no battery', 'red post in the bay', 'hose through floor or sill');
  await expect(places.first()).toContainText('boot, side or floor');
  await places.first().click();
  await page.getByLabel('Maker').fill('Harrowgate');
  await page.getByLabel('Model').fill('Dunnow 1.8');
  await page.getByLabel('Capacity, Ah').fill('no');
  await expect(page.getByRole('alert')).toContainText('Capacity, Ah must be');
  await expect(page.locator('.next')).toBeDisabled();
  await page.getByLabel('Capacity, Ah').fill('68');
  await tech.tap('red post found');
  await tech.next('Keep it and go on');
  await expect(page.getByText('battery: boot, side or floor, vent hose (found once)')).toBeVisible();
  await expect(tech.button(/Red post/)).toBeVisible();
  await tech.tap('+ mark or P', 'meter reads plus');
  await tech.read('1180');
  await tech.saved();
  await page.reload();
  await tech.openStage('Locate');
  await expect(page.getByText('Harrowgate Dunnow 1.8').first()).toBeVisible();
  await page.goto(`${tech.url}/atlas`);
  await page.getByRole('searchbox').fill('harrowgat dunow');
  await expect(page.getByText('found by one of us, not yet seen again')).toBeVisible();
});

test('a wrong match is put right from the atlas', async ({ tech, page }) => {
  await tech.at('scene', 'brinmoor-pella');
  await tech.openStage('Locate');
  await tech.tap('Another machine');
  await page.getByRole('searchbox').fill('solase hybrid');
  await page.getByRole('button', { name: /Solace Hybrid/ }).click();
  await expect(page.getByText('12 V, Ardwen Solace Hybrid')).toBeVisible();
  await tech.tap('Undo');
  await expect(page.getByText('12 V, Brinmoor Pella 1.2')).toBeVisible();
});

test('the donor is dragged, turned and parked; leads that do not reach are not offered', async ({
  tech,
  page,
}) => {
  await tech.at('scene', 'brinmoor-pella');
  await tech.openStage('Locate');
  await tech.tap('Park the donor');
  const needed = page.locator('.side .figure');
  await expect(needed).toContainText('3.0 m of lead needed');
  const metres = async (): Promise<number> => Number.parseFloat((await needed.textContent()) ?? '');

  const grip = page.locator('.grip');
  const box = (await grip.boundingBox())!;
  await page.mouse.move(box.x + 28, box.y + 28);
  await page.mouse.down();
  await page.mouse.move(box.x + 28, box.y - 6, { steps: 6 });
  await page.mouse.up();
  await expect.poll(metres).toBeGreaterThan(3.2);

  const place = page.getByRole('group', { name: /Place/ });
  const dragged = await metres();
  await place.press('Shift+ArrowDown');
  await expect.poll(metres).not.toBe(dragged);
  const moved = await metres();
  // Several turns: one may leave the metres as they are to a tenth.
  for (let i = 0; i < 4; i++) await tech.tap('Turn right');
  await expect.poll(metres).not.toBe(moved);

  await tech.tap('Nose to nose');
  for (let i = 0; i < 6; i++) await place.press('ArrowDown');
  await expect(page.locator('.next')).toContainText('Too close');
  await expect(page.getByText('Vehicles must not touch')).toBeVisible();

  await tech.tap('Behind');
  await expect(page.getByText('too short')).toHaveCount(2);
  await tech.next('Park it here');
  await tech.tap('+ mark or P', 'meter reads plus');
  await tech.openStage('Plan');
  await expect(page.getByText(/m of lead, .* m needed as parked/).first()).toBeVisible();

  await tech.openStage('Locate');
  await tech.tap('Park the donor', 'Best place');
  await expect.poll(metres).toBeLessThan(3);
  await tech.next('Park it here');
  await tech.openStage('Plan');
  await expect(page.getByRole('radio', { name: /Service van, heavy set/ })).toBeVisible();
});

test('kit that was used is marked until somebody says it is done', async ({ tech, page }) => {
  const pack = page.getByRole('listitem').filter({ hasText: 'Lithium pack, 800 A peak' });
  const allDone = async (): Promise<void> => {
    const done = pack.getByRole('button', { name: 'Done' });
    // A pack that is full again needs none of its recharges: one tap may answer for several.
    for (let left = await done.count(); left > 0; left = await done.count()) {
      await done.first().click();
      await expect.poll(() => done.count()).toBeLessThan(left);
    }
  };
  // Other tests of this server may have taken from it too.
  await page.goto(`${tech.url}/kit`);
  const left = pack.getByText(/\d % left/);
  await expect(left).toBeVisible();
  const percent = async (): Promise<number> => Number.parseInt((await left.textContent()) ?? '', 10);
  const before = await percent();
  // A try of eight seconds: one of no time takes nothing that a whole per cent shows.
  await tech.at('cleardown', 'ardwen-solace', {
    ...{ symptom: 'slow-crank', restVolts: [12.05], plan: 'pack-lithium@12', joined: true },
    then: [
      ['attempt.started', {}],
      ['attempt.ended', { outcome: 'started', seconds: 8, lowestVolts: null }],
    ],
  });
  await tech.workSteps();
  await expect(page.getByText('Nobody drives yet')).toBeVisible();
  await tech.next('Read charging volts');
  await tech.read('1420');
  await tech.openStage('Clear down');
  await expect(page.getByText(/Drive \d+ min at least/)).toBeVisible();
  await tech.saved();
  await page.goto(`${tech.url}/kit`);
  await expect(pack.getByText('recharge').first()).toBeVisible();
  // The page shows what the device knew until the server has answered.
  await expect.poll(percent).toBeLessThan(before);
  expect(await percent()).toBeGreaterThanOrEqual(before - 20);
  await allDone();
  await expect(pack.getByText('recharge')).toHaveCount(0);
  await expect(pack.getByText('100 % left')).toBeVisible();
});

test('a dead EV is opened: by its key blade, or else by the wires that its entry knows, with what feeds them', async ({
  tech,
  page,
}) => {
  await tech.at('scene', 'kestow-parcel-e');
  await tech.safeToWork();
  await tech.openStage('Locate');
  const part = page.locator('vt-latch-part');
  await expect(part).toContainText('Try: Key blade');
  await part.getByRole('button', { name: 'Not here' }).click();
  await part.getByRole('button', { name: 'Try: The latch wires of this model' }).click();
  const steps = page.getByRole('dialog');
  await expect(steps).toContainText('Meter across the pair: near 0 V');
  // 9 V over a coil of 10 ohm and 2 ohm of source and wires.
  await expect(steps).toContainText('Latch source, 9 V: 0.75 A, 3 s at the most.');
  await expect(steps).toContainText('It charges nothing and starts nothing.');
  await steps.getByRole('button', { name: 'It opened' }).click();
  await expect(part).toContainText('Open: The latch wires of this model.');
  await tech.saved();
  await page.reload();
  await expect(part).toContainText('Open: The latch wires of this model.');
});
