import { leadSetOhms } from '@voltrek/core/leads';
import type { KitItem } from '@voltrek/core/sources';
import { KIT } from '../../../testing/fixtures';
import { KIT_KIND_WORDS, kitLine } from './kit-words';

describe('kitLine', () => {
  it('tells what the uses of a lead set have measured, and marks one that has surely lost', () => {
    const set = KIT.find((item) => item.kind === 'lead-set')!;
    expect(kitLine(set)).not.toContain('Measured');
    const uses = (factor: number) =>
      [1, 2, 3].map((day) => ({ jobId: 'j', at: `2027-01-0${day}T00:00:00.000Z`, factor, spread: 0.04 }));
    const fair = kitLine({ ...set, uses: uses(1.1) });
    expect(fair).toMatch(/Measured over 3 uses: 1\.10 times/);
    expect(fair).not.toContain('look at its clamps');
    expect(kitLine({ ...set, uses: uses(1.9) })).toMatch(/loses 1\.\d V more at 200 A: look at its clamps/);
  });

  it('says what a lead set loses, in volts at a stated current', () => {
    const [, set] = KIT;
    const leads = (set as Extract<KitItem, { kind: 'lead-set' }>).leads;
    const line = kitLine(set!);
    expect(line).toContain('25 mm², 3.5 m, copper');
    expect(line).toContain(`loses ${(leadSetOhms(leads, 20) * 200).toFixed(2)} V at 200 A`);
  });

  it('says of a thinner, clad set that it loses more', () => {
    const thin: KitItem = {
      kind: 'lead-set',
      id: 'thin',
      name: 'Light set',
      leads: { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'worn' },
    };
    const lost = (line: string): number => Number(/loses ([\d.]+) V/.exec(line)![1]);
    expect(lost(kitLine(thin))).toBeGreaterThan(2 * lost(kitLine(KIT[1]!)));
    expect(kitLine(thin)).toContain('copper-clad aluminium');
  });

  it('gives a capacitor bank its own farads, not those of a cell', () => {
    const booster: KitItem = {
      kind: 'capacitor-booster',
      id: 'bank',
      name: 'Booster',
      cells: 6,
      cellFarads: 350,
      cellVolts: 2.7,
      cellOhms: 0.0003,
      volts: 14.4,
      converterAmps: null,
      leads: { sectionMm2: 25, lengthM: 1, conductor: 'copper', contact: 'clean' },
    };
    expect(kitLine(booster)).toContain('bank 58.3 F');
    expect(kitLine(booster)).not.toContain('fills itself');
    expect(kitLine({ ...booster, converterAmps: 5 })).toContain('fills itself from a weak battery at 5 A');
  });

  it('keeps an ordinary charger off the crank, and hobby lithium under its limit', () => {
    const charger = { kind: 'mains-charger', id: 'c', name: 'Charger', amps: 15, volts: 14.4 } as const;
    expect(kitLine({ ...charger, startAmps: null } as KitItem)).toContain('unplugged before the crank');
    expect(kitLine({ ...charger, startAmps: 100 } as KitItem)).toContain('100 A at its engine-start setting');
    const cells = { kind: 'hobby-lithium', id: 'h', name: 'Cells', capacityAh: 5, cRate: 40 } as const;
    expect(kitLine(cells as KitItem)).toContain('200 A, never past 12.6 V');
  });

  it('has a word for every kind on the van', () => {
    for (const item of KIT) expect(KIT_KIND_WORDS[item.kind].length).toBeGreaterThan(2);
  });
});
