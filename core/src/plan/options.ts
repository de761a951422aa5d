import { type Machine, startsByWaking } from '../machine/index.js';
import type { HouseRules } from '../rules/index.js';
import type { LeadSet } from '../leads/index.js';
import {
  capacitorSource,
  chargerSource,
  donorSource,
  hobbySource,
  type KitItem,
  leadPackSource,
  type LeadSetKit,
  leadsOf,
  lithiumSource,
  type SourceModel,
  spareBatteriesSource,
} from '../sources/index.js';
import type { Across } from './clamp-points.js';
import type { CasualtyBatteries } from './casualty-batteries.js';

export const SOURCE_KINDS = [
  'donor',
  'lithium-pack',
  'lead-pack',
  'capacitor-booster',
  'spare-batteries',
  'mains-charger',
  'hobby-lithium',
] as const;
/** The kinds of kit that lend power. */
export type SourceKind = (typeof SOURCE_KINDS)[number];

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

/** True when the option's leads have clamps at both ends: a donor, or spare batteries. */
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
  switch (item.kind) {
    case 'donor': {
      const isBarred = machine.machineClass === 'motorcycle' && rules.motorcycleDonor === 'off';
      const donorRuns = !startsByWaking(machine) && !isBarred && rules.donorEngine !== 'off-throughout';
      const source = donorSource(item, donorRuns, tempC, rules.donorRevs);
      const engineAlternator = donorSource(item, true, tempC, rules.donorRevs).alternator!;
      return leadSets.map((set) => ({
        ...withLeads(item, item.systemVolts, source, set),
        donorRuns,
        engineAlternator,
      }));
    }
    case 'spare-batteries':
      return ([12, 24] as const)
        .filter((output) => output / 12 <= item.count)
        .flatMap((output) =>
          leadSets.map((set) => ({
            ...withLeads(item, output, spareBatteriesSource(item, output, tempC), set),
            id: `${item.id}@${output}+${set.id}`,
          })),
        );
    case 'lithium-pack':
      return [fixedLeads(item, 12, lithiumSource(item, tempC))];
    case 'capacitor-booster':
      return [fixedLeads(item, 12, capacitorSource(item, tempC))];
    case 'hobby-lithium':
      return [fixedLeads(item, 12, hobbySource(item, tempC))];
    case 'lead-pack':
      return item.outputs.map((output) => fixedLeads(item, output, leadPackSource(item, output, tempC)));
    case 'mains-charger': {
      const starts = item.startAmps !== null;
      return [{ ...fixedLeads(item, 12, chargerSource(item, starts)), chargeOnly: !starts }];
    }
    case 'lead-set':
    case 'latch-source':
    case 'instrument':
      return [];
  }
}

type Lender = Pick<SourceOption, 'sourceId' | 'sourceKind'>;
const lender = (item: { readonly id: string; readonly kind: SourceKind }): Lender => ({
  sourceId: item.id,
  sourceKind: item.kind,
});

function withLeads(
  item: { readonly id: string; readonly kind: SourceKind },
  outputVolts: number,
  source: SourceModel,
  set: LeadSetKit,
): SourceOption {
  return {
    ...lender(item),
    id: `${item.id}+${set.id}`,
    leadSetId: set.id,
    outputVolts,
    leads: leadsOf(set),
    source,
    donorRuns: false,
    chargeOnly: false,
    across: { kind: 'whole' },
  };
}

function fixedLeads(
  item: { readonly id: string; readonly kind: SourceKind; readonly leads: LeadSet },
  outputVolts: number,
  source: SourceModel,
): SourceOption {
  return {
    ...lender(item),
    id: `${item.id}@${outputVolts}`,
    leadSetId: null,
    outputVolts,
    leads: item.leads,
    source,
    donorRuns: false,
    chargeOnly: false,
    across: { kind: 'whole' },
  };
}

/** Sources that may go across one battery of a string: those whose body does not join the chassis, and that give at once. */
const ACROSS_ONE_BATTERY: readonly SourceKind[] = [
  'lithium-pack',
  'lead-pack',
  'capacitor-booster',
  'spare-batteries',
  'hobby-lithium',
];

/**
 * A 12 V source across the weaker battery of a 24 V string. A donor only across the battery at the chassis end: across another its body would
 * join the chassis at the wrong level.
 */
function acrossOneBattery(options: readonly SourceOption[], batteries: CasualtyBatteries): SourceOption[] {
  const battery = batteries.weakest;
  return options
    .filter(
      (o) =>
        o.outputVolts === 12 &&
        (ACROSS_ONE_BATTERY.includes(o.sourceKind) || (o.sourceKind === 'donor' && battery === 0)),
    )
    .map((o) => ({ ...o, id: `${o.id}#battery${battery}`, across: { kind: 'battery', battery } }));
}
