import { randomUUID } from 'node:crypto';
import { expect, test } from '../support/fixtures';
import { TestServer } from '../support/server';
import { Technician } from '../support/technician';

test('a reload in mid-job comes back to the same step', async ({ tech, page }) => {
  await tech.at('hookup', 'brinmoor-pella', {
    symptom: 'one-click',
    restVolts: [11.85],
    plan: 'donor-van-1+leads-heavy',
  });
  await tech.next('All off');
  await tech.next('Red clamp is on');
  await tech.saved();
  await page.reload();
  await tech.expectStage('Hook up');
  await expect(page.locator('vt-step-card h2')).toHaveText('Red on donor battery +');
  const jobUrl = page.url().replace(/\/[a-z]+$/, '');
  await page.goto(jobUrl);
  await tech.expectStage('Hook up');
});

test('a second tab sees the first one’s taps, and a conflicting tap is refused and shown @long', async ({
  tech,
  page,
  context,
}) => {
  await tech.at('plan', 'brinmoor-pella', { symptom: 'one-click', restVolts: [11.85] });
  await tech.take(/Lithium pack/);
  await tech.saved();
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.locator('vt-step-card h2')).toHaveText('Everything off, both sides');
  await tech.next('All off');
  await expect(second.locator('vt-step-card h2')).toHaveText('Red on casualty battery +');
  // The second tab loses touch with the server and the first. So it does not know that the clamp is on.
  await second.addInitScript(() => Reflect.deleteProperty(globalThis, 'BroadcastChannel'));
  await second.route('**/stream', (route) => route.abort());
  await second.reload();
  await expect(second.locator('.next')).toContainText('Red clamp is on');
  await tech.next('Red clamp is on');
  await tech.saved();
  await second.locator('.next').click();
  await expect(second.getByText('Not done: clamp on')).toBeVisible();
  await expect(second.getByText('That clamp is already on.')).toBeVisible();
  await expect(second.locator('vt-step-card h2')).toHaveText('Black on casualty ground point');
});

test('taps made while the server is away are kept and sent when it is back, across a kill @long', async ({
  page,
}) => {
  const server = await TestServer.ofDemo();
  try {
    expect((await server.start()).ready).toBe(true);
    const tech = new Technician(page, server.url);
    await tech.openJob('ardwen-solace');
    await tech.next('Safe to work here');
    await tech.tap('rapid clicking');
    await tech.saved();
    // Killed after an acknowledged tap: nothing acknowledged may be lost.
    await server.stop('SIGKILL');
    await tech.tap('slow crank');
    await expect(page.getByText(/no server, 1 kept here/)).toBeVisible();
    expect((await server.start()).ready).toBe(true);
    await expect(page.getByText(/all saved/)).toBeVisible({ timeout: 20_000 });
    await page.reload();
    await tech.expectStage('Checks');
    for (const symptom of ['rapid clicking', 'slow crank']) {
      await expect(tech.button(symptom)).toHaveAttribute('aria-pressed', 'true');
    }
    // And an orderly stop and start keep it as well.
    expect(await server.stop('SIGTERM')).toBe(0);
    expect((await server.start()).ready).toBe(true);
    await page.reload();
    await expect(tech.button('slow crank')).toHaveAttribute('aria-pressed', 'true');
  } finally {
    await server.remove();
  }
});

test('a second server on the same data says who holds it and stops', async ({ server }) => {
  const twin = await server.twin();
  const { ready, output, code } = await twin.start();
  expect(ready).toBe(false);
  expect(code).toBe(1);
  expect(output).toMatch(/held by another Voltrek server \(process \d+\)/);
});

test('a busy port is a clear error and leaves the data alone', async ({ server }) => {
  const other = await TestServer.empty();
  const { ready, output, code } = await other.start('--port', String(server.port));
  expect(ready).toBe(false);
  expect(code).toBe(1);
  expect(output).toContain(`Port ${server.port} is in use`);
  await other.remove();
});

test('figures that cannot be are refused at the pad and at the crank @long', async ({ tech, page }) => {
  await tech.openJob('brinmoor-pella');
  await tech.openStage('Measure');
  const pad = page.getByRole('group', { name: 'Number pad' });
  for (const digit of '9900') await pad.getByRole('button', { name: digit, exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText('Volts must be between -16 and 16 V');
  await expect(page.locator('.next')).toBeDisabled();
  await tech.openStage('Crank');
  await tech.next('Crank now, try 1');
  await page.getByLabel(/Lowest volts/).fill('ninety');
  await expect(page.getByRole('alert')).toHaveText('That is not a voltage.');
  await expect(tech.button('Slow')).toHaveAttribute('aria-disabled', 'true');
  await page.getByLabel(/Lowest volts/).fill('962');
  await tech.tap('Slow');
  await expect(page.getByText('9.62 V')).toBeVisible();
  await page.getByRole('radio', { name: 'Again, as it is' }).click();
  await tech.next('Rest');
  await page.getByLabel('Reason, kept in the log').fill('cranked for one second only');
  await tech.tap('Go on, and log it');
  await expect(page.getByText('Cranking', { exact: true })).toBeVisible();
});

test('an unknown job and an unknown page say so', async ({ page, server }) => {
  await page.goto(`${server.url}/job/${randomUUID()}`);
  await expect(page.getByRole('alert')).toContainText('There is no job');
  await page.goto(`${server.url}/nowhere`);
  await expect(page.getByRole('heading', { name: 'Nothing here' })).toBeVisible();
});
