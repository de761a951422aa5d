import { ampsToSet } from '../charging/index.js';
import { chargerSource, type KitItem, type MainsChargerKit } from '../sources/index.js';
import type { Machine } from '../machine/index.js';
import type { SourceOption } from './options.js';

/**
 * Every way that the chargers of the van can bring a battery of this machine to full: across the whole of a 12 V machine, across each battery of
 * a string in turn. Each is set to the current that its battery should take. Nothing is cranked with them.
 *
 * @returns fit or not, a charger after the other, batteries from the chassis side up
 */
export function chargeOptions(machine: Machine, kit: readonly KitItem[]): SourceOption[] {
  return kit.flatMap((item) => {
    if (item.kind !== 'mains-charger') return [];
    const set = machine.batteries.map(({ rating }) => ({ ...item, amps: ampsToSet(item.amps, rating) }));
    if (set.length === 1) return [chargeOption(set[0]!, null)];
    return set.map((charger, battery) => chargeOption(charger, battery));
  });
}

function chargeOption(charger: MainsChargerKit, battery: number | null): SourceOption {
  return {
    id: `${charger.id}=full${battery === null ? '' : `#battery${battery}`}`,
    sourceId: charger.id,
    sourceKind: 'mains-charger',
    leadSetId: null,
    outputVolts: 12,
    leads: charger.leads,
    source: chargerSource(charger, false),
    donorRuns: false,
    chargeOnly: true,
    across: battery === null ? { kind: 'whole' } : { kind: 'battery', battery },
  };
}
