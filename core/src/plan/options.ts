import { type Machine, startsByWaking } from '../machine/index.js';
import type { HouseRules } from '../rules/index.js';
import type { LeadSet } from '../leads/index.js';
import {
  kindOf,
  KIT_KINDS,
  type KitItem,
  type LeadSetKit,
  leadsOf,
  type SourceKind,
  type SourceModel,
} from '../sources/index.js';
import type { Across } from './clamp-points.js';
import type { CasualtyBatteries } from '../belief/index.js';

/** One way to lend power with what is on the van. */
export interface SourceOption {
  /** Stable within a job: made from the kit ids. */
  readonly id: string;
  readonly sourceId: string;
  /** The loose lead set it needs; null when its leads are fixed to it. */
  readonly leadSetId: string | null;
  readonly sourceKind: SourceKind;
  readonly outputVolts: number;
  readonly leads: LeadSet;
  readonly source: SourceModel;
  readonly donorRuns: boolean;
  /** The donor's alternator if its engine is started, planned or not. */
  readonly engineAlternator?: NonNullable<SourceModel['alternator']>;
  /** Charges the casualty's own battery and must be off and unplugged before the crank. */
  readonly chargeOnly: boolean;
  readonly across: Across;
}

/**
 * True when the option's leads have clamps at both ends: a donor, or spare batteries.
 *
 * @example hasLooseLeads({ leadSetId: 'heavy' }) // => true
 */
export function hasLooseLeads(option: Pick<SourceOption, 'leadSetId'>): boolean {
  return option.leadSetId !== null;
}

/** True when the option has a switch of its own: everything whose leads are fixed to it. */
export const hasSwitch = (option: Pick<SourceOption, 'leadSetId'>): boolean => !hasLooseLeads(option);

/** Every way the kit can be joined to this machine, fit or not. */
export function sourceOptions(
  machine: Machine,
  kit: readonly KitItem[],
  batteries: CasualtyBatteries,
  tempC: number,
  rules: HouseRules,
): SourceOption[] {
  const leadSets = kit.filter((item) => item.kind === 'lead-set');
  const options = kit.flatMap((item) => optionsOf(item, machine, leadSets, tempC, rules));
  return machine.systemVolts === 24 ? [...options, ...acrossOneBattery(options, batteries)] : options;
}

function optionsOf(
  item: KitItem,
  machine: Machine,
  leadSets: readonly LeadSetKit[],
  tempC: number,
  rules: HouseRules,
): SourceOption[] {
  const { lends } = kindOf(item);
  if (!lends) return [];
  const isBarred = machine.machineClass === 'motorcycle' && rules.motorcycleDonor === 'off';
  const donorRuns =
    lends.hasEngine && !startsByWaking(machine) && !isBarred && rules.donorEngine !== 'off-throughout';
  const revs = rules.donorRevs;
  const outputs = lends.outputs(item);
  return outputs.flatMap((output): SourceOption[] => {
    const engine = lends.hasEngine && lends.source(item, output, tempC, { runs: true, revs }).alternator;
    const option = {
      ...{ sourceId: item.id, sourceKind: item.kind as SourceKind, outputVolts: output, donorRuns },
      source: lends.source(item, output, tempC, { runs: donorRuns, revs }),
      ...(engine && { engineAlternator: engine }),
      chargeOnly: lends.chargeOnly(item),
      across: { kind: 'whole' } as const,
    };
    if (lends.fixedLeads)
      return [{ ...option, id: `${item.id}@${output}`, leadSetId: null, leads: lends.fixedLeads(item) }];
    // A donor has one output, and its name tells none.
    const name = item.kind === 'donor' ? item.id : `${item.id}@${output}`;
    return leadSets.map((set) => ({
      ...option,
      ...{ id: `${name}+${set.id}`, leadSetId: set.id, leads: leadsOf(set) },
    }));
  });
}

/** A 12 V source across the weaker battery of a 24 V string, where its kind may stand there. */
function acrossOneBattery(options: readonly SourceOption[], batteries: CasualtyBatteries): SourceOption[] {
  const battery = batteries.weakest;
  const mayStand = ({ sourceKind }: SourceOption): boolean => {
    const { acrossOne } = KIT_KINDS[sourceKind].lends;
    return acrossOne === 'any' || (acrossOne === 'at-chassis' && battery === 0);
  };
  return options
    .filter((o) => o.outputVolts === 12 && mayStand(o))
    .map((o) => ({ ...o, id: `${o.id}#battery${battery}`, across: { kind: 'battery', battery } }));
}
