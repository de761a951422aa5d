import { expect, test } from '../support/fixtures';

test('a machine whose battery lies buried is started at its starter stud, and secured before a clamp goes on', async ({
  tech,
  page,
}) => {
  const id = await tech.addMachine('buried', ({ points }) => ({
    points: [
      ...points.filter(({ kind }) => !kind.startsWith('battery') && kind !== 'red-post'),
      {
        ...points.find(({ kind }) => kind === 'battery-positive'),
        ...{ id: 'stud', kind: 'starter-stud', label: 'Starter stud', battery: undefined },
      },
    ],
  }));

  await tech.at('plan', id, { symptom: 'one-click', restVolts: [11.65] });
  await tech.take(/Lithium pack/);
  const card = page.locator('vt-step-card h2');
  await expect(card).toHaveText('Everything off, both sides');
  await tech.next('All off');
  await expect(card).toHaveText('Secure the machine: it may turn');
  await expect(page.getByText('Gear out, brake on, wheels or tracks chocked')).toBeVisible();
  await tech.next('It cannot move off');
  await expect(card).toHaveText('Red on casualty starter stud');
  await tech.saved();
});
