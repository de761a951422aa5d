import { casualtyBatteries } from '@voltrek/core/belief';
import { rankOptions } from '@voltrek/core/plan';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import type { KitItem } from '@voltrek/core/sources';
import { CAR, KIT } from '../../../testing/fixtures';
import { optionName } from './option-name';

describe('optionName', () => {
  const switchable: KitItem = {
    kind: 'lead-pack',
    id: 'lead',
    name: 'Lead-acid pack',
    outputs: [12, 24],
    battery: CAR.batteries[0]!.rating,
    soc: 0.9,
    leads: { sectionMm2: 25, lengthM: 1, conductor: 'copper', contact: 'clean' },
  };
  const kit = [...KIT, switchable];
  const named = (id: string): string => {
    const batteries = casualtyBatteries(CAR, [12], 0);
    const found = rankOptions(CAR, kit, batteries, 0, DEFAULT_RULES).find((r) => r.option.id === id)!;
    return optionName(found, kit);
  };

  it('says the source and its lead set, and the output where it can be switched', () => {
    expect(named('donor+heavy')).toBe('Service van, heavy set');
    expect(named('lithium@12')).toBe('Lithium pack');
    expect(named('lead@24')).toBe('Lead-acid pack, at 24 V');
  });

  it('says which battery it goes across', () => {
    const { option } = rankOptions(CAR, kit, casualtyBatteries(CAR, [12], 0), 0, DEFAULT_RULES)[0]!;
    const across = { kind: 'battery', battery: 1 } as const;
    expect(optionName({ option: { ...option, across } }, kit)).toContain('across battery 2');
  });
});
