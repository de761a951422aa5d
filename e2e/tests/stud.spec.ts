import { randomUUID } from 'node:crypto';
import { expect, test } from '../support/fixtures';

interface Point {
  readonly id: string;
  readonly kind: string;
}

test('a machine whose battery lies buried is started at its starter stud, and secured before a clamp goes on', async ({
  tech,
  page,
}) => {
  const known = (await (await page.request.get(`${tech.url}/api/models/brinmoor-pella`)).json()) as {
    machine: { points: Point[] };
  };
  const id = `buried-${randomUUID().slice(0, 8)}`;
  const red = known.machine.points.find(({ kind }) => kind === 'battery-positive')!;
  const machine = {
    ...known.machine,
    id,
    model: `Pella, buried ${id.slice(-4)}`,
    points: [
      ...known.machine.points.filter(({ kind }) => !kind.startsWith('battery') && kind !== 'red-post'),
      { ...red, id: 'stud', kind: 'starter-stud', label: 'Starter stud', battery: undefined },
    ],
  };
  const added = await page.request.post(`${tech.url}/api/models`, {
    data: { by: 'crew-1', note: '', basedOn: null, machine },
  });
  expect(added.status(), await added.text()).toBe(201);

  await tech.openJob(id);
  await tech.toMeasure('one click');
  await tech.read('1165');
  await tech.next('Go on to Plan');
  await tech.take(/Lithium pack, 1000 A peak|Lithium pack/);
  const card = page.locator('vt-step-card h2');
  await expect(card).toHaveText('Everything off, both sides');
  await tech.next('All off');
  await expect(card).toHaveText('Secure the machine: it may turn');
  await expect(page.getByText('Gear out, brake on, wheels or tracks chocked')).toBeVisible();
  await tech.next('It cannot move off');
  await expect(card).toHaveText('Red on casualty starter stud');
  await tech.saved();
});
