import type { Machine } from '@voltrek/core/machine';
import type { RankedOption } from '@voltrek/core/plan';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { type CapacitorBoosterKit, USUAL_COIL_OHMS, USUAL_LATCH_SOURCE_OHMS } from '@voltrek/core/sources';
import { CAR, opened, workOf } from '../../../../testing/fixtures';
import type { Work } from '../../../shared/job/job-selectors';
import { notesOf } from './plan-notes';

const BOOSTER: CapacitorBoosterKit = {
  kind: 'capacitor-booster',
  id: 'bank',
  name: 'Booster, 6 x 600 F',
  cells: 6,
  cellFarads: 600,
  cellVolts: 2.7,
  cellOhms: 0.0003,
  volts: 14.4,
  converterAmps: 5,
  leads: { sectionMm2: 25, lengthM: 1, conductor: 'copper', contact: 'clean' },
};

function workWith(kit: Work['kit'], machine: Machine = CAR): Work {
  return workOf([opened()], { kit, machine });
}
const drawing = (starterAmps: number) =>
  [{ option: { sourceId: 'bank' }, crank: { starterAmps } }] as unknown as RankedOption[];

describe('notesOf', () => {
  // 100 F: 1.5 s of 100 A takes 1.5 V, and 1.8 mohm 0.18 V at once; from 14.4 to 10.5 V there is room for two.
  it('counts the cranks of a booster by the bank, not by a cell', () => {
    expect(DEFAULT_RULES.capacitorMinVolts).toBe(10.5);
    expect(notesOf(workWith([BOOSTER]), drawing(100))).toEqual([
      {
        name: 'Booster',
        // 100 F from 10.5 to 14.4 V are 4,855 J, at 72 W: 67 s.
        text: '2 cranks of 1.5 s by itself above 10.5 V, fills itself from the weak battery in 1:07 min.',
      },
    ]);
  });

  it('says when a booster has no whole crank, and one crank as one', () => {
    expect(notesOf(workWith([BOOSTER]), drawing(300))[0]!.text).toContain(
      'no whole crank of 1.5 s by itself above 10.5 V, the battery must help',
    );
    expect(notesOf(workWith([BOOSTER]), drawing(150))[0]!.text).toMatch(/^1 crank of/);
  });

  it('gives the amps through a latch only where there are latch wires', () => {
    const source = { kind: 'latch-source', id: 'latch', name: 'Latch source', volts: 9 } as const;
    expect(notesOf(workWith([source]), [])).toEqual([]);
    const wires = { ...CAR.points[0]!, id: 'wire', kind: 'latch-wire-positive' } as const;
    const amps = 9 / (USUAL_COIL_OHMS + USUAL_LATCH_SOURCE_OHMS);
    const [note] = notesOf(workWith([source], { ...CAR, points: [...CAR.points, wires] }), []);
    expect(note!.text).toContain(`about ${amps.toFixed(2)} A through the latch`);
  });
});
