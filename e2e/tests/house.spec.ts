import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { TestServer } from '../support/server';
import { Technician } from '../support/technician';

test('a house is set up from nothing, its first job is worked to the end, and all of it moves to a fresh folder @long', async ({
  page,
}) => {
  const server = await TestServer.empty();
  const fresh = await TestServer.empty();
  try {
    const { ready, output } = await server.start('--empty');
    expect(ready, output).toBeTruthy();
    const tech = new Technician(page, server.url);
    await page.goto(server.url);
    await expect(page.getByRole('heading', { level: 1, name: 'Set-up' })).toBeVisible();
    await expect(tech.button('To the board')).toBeDisabled();
    await page.getByLabel('Name', { exact: true }).fill('Sorrel');
    await tech.tap('One more');
    // The second field is there a frame after the tap.
    await page.getByLabel('Name', { exact: true }).nth(1).fill('Teasel');
    await page.getByLabel('Name of the van').fill('Van 7, Plover');
    await tech.tap(/Spare batteries/, /Hydrometer/, 'To the board');
    // Two work here, and this device is new to both.
    await page.getByRole('dialog').getByRole('button', { name: 'Sorrel' }).click();
    await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
    await expect(page.getByLabel('Who works')).toHaveText(/Sorrel\s*Teasel/);

    await page.goto(`${server.url}/kit`);
    const van = page.getByRole('region', { name: 'Van 7, Plover' });
    for (const name of [/Heavy set/, /Lithium pack/, /Multimeter/, /Spare batteries/, /Hydrometer/])
      await expect(van.getByRole('button', { name })).toBeVisible();
    await expect(van.getByRole('button', { name: /Light set/ })).toHaveCount(0);

    await tech.openBoard();
    await expect(page.getByText('No calls.')).toBeVisible();
    await tech.tap('New call');
    await page.getByLabel('Plate, if it has one').fill('QX 4410');
    await page.getByLabel('Vehicle or machine').fill('pella 1.2');
    await page.getByRole('option', { name: /Pella 1.2/ }).click();
    await page.getByLabel('Place').fill('Lime kiln yard');
    await page.getByLabel('Air, °C').fill('900');
    await expect(page.getByRole('alert')).toContainText('between -50 and 60');
    await page.getByLabel('Air, °C').fill('-4');
    await tech.tap('Save the call');
    await page
      .getByRole('button', { name: /Lime kiln yard/ })
      .first()
      .click();
    await tech.expectStage('Scene');
    await tech.toMeasure('rapid clicking');
    await tech.read('1190');
    await tech.startWith(/Lithium pack/);
    await tech.openStage('Verdict');
    await tech.close('Charge first');

    await page.goto(`${server.url}/rules`);
    const backups = page.locator('vt-backups-part');
    await expect(backups).toContainText('None yet');
    await backups.getByRole('button', { name: 'Back up now' }).click();
    await expect(backups).toContainText(/asked for\s+\d+ events of 1 jobs, \d+\.\d MB, opened and checked/, {
      timeout: 60_000,
    });

    await server.stop();
    const made = await server.house('backup');
    const packed = /(\S+\.tgz): \d+ events of 1 jobs/.exec(made)![1]!;
    expect(await server.house('restore', packed)).toMatch(
      /\d+ events of 1 jobs are back\s+What stood there is in/,
    );
    expect(await server.house('rebuild')).toContain('1 jobs made anew from their logs; 0 things differed');
    const file = join(server.folder, 'house.ndjson');
    expect(await server.house('export', file)).toContain('1 vehicles');
    expect(await fresh.house('import', file)).toContain('1 vehicles');
    // All of it stands there, and the set-up does not ask again.
    const second = await fresh.start();
    expect(second.ready, second.output).toBeTruthy();
    await page.goto(fresh.url);
    await page.getByRole('dialog').getByRole('button', { name: 'Teasel' }).click();
    await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
    await expect(page.getByLabel('Who works')).toHaveText(/Sorrel\s*Teasel/);
    await page.goto(`${fresh.url}/kit`);
    await expect(page.getByRole('listitem').filter({ hasText: 'Lithium pack' })).toContainText(/\d % left/);
    await page.goto(`${fresh.url}/vehicles`);
    await page.getByRole('link', { name: /QX 4410/ }).click();
    await page.locator('vt-record-list a', { hasText: 'Charge first' }).click();
    await tech.expectStage('Verdict');
    await expect(page.getByText('Rest volts: 11.90 V')).toBeVisible();
  } finally {
    await server.remove();
    await fresh.remove();
  }
});
