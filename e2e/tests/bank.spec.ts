import { expect, test } from '../support/fixtures';

/** 200 F: 0.8 Ah between nothing and 14.4 V. */
const BANK = { chemistry: 'capacitor', capacityAh: 0.8, ccaAmps: 1200, ccaStandard: 'SAE' };

test('a capacitor bank in the battery’s place: its cranks left, how long it holds, how soon it is full @long', async ({
  tech,
  page,
}) => {
  const id = await tech.addMachine('bank', ({ batteries }) => ({
    batteries: [{ ...batteries[0], rating: BANK }],
  }));

  await tech.at('measure', id, { symptom: 'slow-crank' });
  await expect(page.locator('.stage header')).toContainText('capacitor bank, -4 °C');
  await tech.read('1380');
  const bank = page.locator('vt-bank-now');
  await expect(bank).toContainText('200 F at 13.80 V');
  await expect(bank).toContainText(/Cranks left: about \d+, down to 10.5 V/);
  // 11.7 A of headlamps: 200 F fall from 13.8 to 10.5 V within a minute; 0.6 V back at 10 A take 12 s.
  await expect(bank).toContainText('57 s with headlamps on');
  await expect(bank).toContainText('12 s from a converter');
});
