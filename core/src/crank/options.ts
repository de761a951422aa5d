import type { HouseRules } from '../rules/house-rules.js';
import type { Rescue } from '../circuit/rescue.js';
import { LEAD_RANGES, type LeadSet } from '../leads/lead-set.js';
import { type Machine, startsByWaking } from '../machine/machine.js';
import {
  capacitorSource,
  donorSource,
  type KitItem,
  leadPackSource,
  lithiumSource,
  type SourceModel,
} from '../sources/kit.js';
import type { OddsInput } from './odds.js';
import { type CrankPoint, crankPoint, type WakePoint, wakePoint } from './quick.js';
import type { CasualtyBlocks } from './casualty-blocks.js';
import { type Across, clampPoints, terminalOf } from './clamp-points.js';

export const SOURCE_KINDS = ['donor', 'lithium-pack', 'lead-pack', 'capacitor-booster'] as const;
/** The kinds of kit that lend power. */
export type SourceKind = (typeof SOURCE_KINDS)[number];

/** One way to lend power with what is on the van. */
export interface SourceOption {
  /** Stable within a job: made from the kit ids. */
  readonly id: string;
  readonly sourceId: string;
  readonly leadSetId: string | null;
  readonly sourceKind: SourceKind;
  readonly outputVolts: number;
  readonly leads: LeadSet;
  readonly source: SourceModel;
  readonly donorRuns: boolean;
  readonly across: Across;
}

/** Why an option cannot be used here. */
export type Unfit =
  | { readonly code: 'voltage'; readonly outputVolts: number; readonly systemVolts: number }
  | { readonly code: 'sense'; readonly restVolts: number; readonly senseVolts: number }
  | { readonly code: 'unsteady' }
  | { readonly code: 'lithium-block' }
  | { readonly code: 'other-block-weak' }
  | { readonly code: 'blocks-unread' };

/** What holds an option back most: found by taking that part's resistance away and solving again. */
export type LimitedBy = 'leads' | 'source' | 'casualty' | 'none';

export const OUTLOOKS = [
  'cranks',
  'marginal',
  'too-slow',
  'does-not-turn',
  'low-volts',
  'wakes',
  'does-not-wake',
] as const;
export type Outlook = (typeof OUTLOOKS)[number];

export interface RankedOption {
  readonly option: SourceOption;
  readonly unfit: Unfit | null;
  readonly crank: CrankPoint | null;
  readonly wake: WakePoint | null;
  readonly outlook: Outlook | null;
  readonly limitedBy: LimitedBy;
  /** What it is ranked by: crank speed over needed, or wake volts over the least allowed. */
  readonly score: number;
}

/** Above this much more speed than needed a start is expected, below it may go either way. */
const SURE_SPEED_RATIO = 1.25;
/** Share of a resistance kept when asking what would change without it. */
const NEARLY_NONE = 0.02;
/** Crank speed regained, as a share, before a part is blamed. */
const BLAME_SHARE = 0.03;

/** Every way the kit can be joined to this machine, fit or not. */
export function sourceOptions(
  machine: Machine,
  kit: readonly KitItem[],
  blocks: CasualtyBlocks,
  tempC: number,
): SourceOption[] {
  const leadSets = kit.filter((item) => item.kind === 'lead-set');
  const donorRuns = !startsByWaking(machine) && machine.machineClass !== 'motorcycle';
  const whole: Across = { kind: 'whole' };
  const options: SourceOption[] = [];
  for (const item of kit) {
    if (item.kind === 'donor') {
      for (const set of leadSets) {
        options.push({
          id: `${item.id}+${set.id}`,
          sourceId: item.id,
          leadSetId: set.id,
          sourceKind: 'donor',
          outputVolts: item.systemVolts,
          leads: set.leads,
          source: donorSource(item, donorRuns, tempC),
          donorRuns,
          across: whole,
        });
      }
    } else if (item.kind === 'lithium-pack') {
      options.push(packOption(item, 12, lithiumSource(item, tempC), whole));
    } else if (item.kind === 'capacitor-booster') {
      options.push(packOption(item, 12, capacitorSource(item), whole));
    } else if (item.kind === 'lead-pack') {
      for (const output of item.outputs) {
        options.push(packOption(item, output, leadPackSource(item, output, tempC), whole));
      }
    }
  }
  return machine.systemVolts === 24 ? [...options, ...acrossOneBlock(options, blocks)] : options;
}

function packOption(
  item: { readonly id: string; readonly kind: SourceOption['sourceKind']; readonly leads: LeadSet },
  outputVolts: number,
  source: SourceModel,
  across: Across,
): SourceOption {
  return {
    id: `${item.id}@${outputVolts}`,
    sourceId: item.id,
    leadSetId: null,
    sourceKind: item.kind,
    outputVolts,
    leads: item.leads,
    source,
    donorRuns: false,
    across,
  };
}

/** A 12 V pack across the weaker block of a 24 V string. Never a donor: its body would join the chassis at the wrong level. */
function acrossOneBlock(options: readonly SourceOption[], blocks: CasualtyBlocks): SourceOption[] {
  const weakest = blocks.weakest;
  return options
    .filter((o) => o.outputVolts === 12 && o.sourceKind !== 'donor')
    .map((o) => ({ ...o, id: `${o.id}#block${weakest}`, across: { kind: 'block', block: weakest } }));
}

/** The option's circuit with every clamp on and the source switched on. */
export function connectedRescue(
  machine: Machine,
  option: SourceOption | null,
  blocks: CasualtyBlocks,
  tempC: number,
  rules: HouseRules,
): Rescue {
  const points = option && clampPoints(machine, option.across, rules);
  const red = points && terminalOf(machine, points.red.id);
  const black = points && terminalOf(machine, points.black.id);
  return {
    casualty: blocks.models,
    load: { kind: 'none' },
    source: option?.source ?? null,
    sourceOn: true,
    leads: option?.leads ?? null,
    tempC,
    clamps: { redCasualty: red, redSource: red, blackSource: black, blackCasualty: black },
  };
}

/**
 * What the odds of a start are drawn from, for one option; null for a machine that wakes and does not crank.
 *
 * @param samples how many draws
 */
export function oddsInput(
  machine: Machine,
  option: SourceOption | null,
  blocks: CasualtyBlocks,
  tempC: number,
  rules: HouseRules,
  samples: number,
): OddsInput | null {
  if (!machine.engine) return null;
  const rescue = connectedRescue(machine, option, blocks, tempC, rules);
  return { rescue, blocks: blocks.beliefs, engine: machine.engine, samples };
}

/** All options solved, those that fit first, best first. */
export function rankOptions(
  machine: Machine,
  kit: readonly KitItem[],
  blocks: CasualtyBlocks,
  tempC: number,
  rules: HouseRules,
): RankedOption[] {
  return sourceOptions(machine, kit, blocks, tempC)
    .map((option) => solveOption(machine, option, blocks, tempC, rules))
    .sort((a, b) => Number(a.unfit !== null) - Number(b.unfit !== null) || b.score - a.score);
}

function solveOption(
  machine: Machine,
  option: SourceOption,
  blocks: CasualtyBlocks,
  tempC: number,
  rules: HouseRules,
): RankedOption {
  const unfit = whyUnfit(machine, option, blocks, rules);
  const none = {
    option,
    unfit,
    crank: null,
    wake: null,
    outlook: null,
    limitedBy: 'none',
    score: 0,
  } as const;
  if (unfit) return none;
  const rescue = connectedRescue(machine, option, blocks, tempC, rules);
  if (!machine.engine) {
    const wake = wakePoint(rescue, rules.wakeAmps);
    const steady = wake.postVolts >= rules.wakeMinVolts && wake.postVolts <= rules.wakeMaxVolts;
    return {
      ...none,
      wake,
      outlook: steady ? 'wakes' : 'does-not-wake',
      score: wake.postVolts / rules.wakeMinVolts,
    };
  }
  const crank = crankPoint(rescue, machine.engine);
  return {
    ...none,
    crank,
    outlook: outlookOf(crank),
    limitedBy: limitedBy(rescue, machine, crank),
    score: scoreOf(crank),
  };
}

/** Speed ratio; an engine that stands still is ranked by its volts, far below any that turns. */
function scoreOf(crank: CrankPoint): number {
  return crank.turns ? crank.rpm / crank.neededRpm : crank.starterVolts / 1000;
}

/** What a crank point promises, in five words the screens know. */
export function outlookOf(crank: CrankPoint): Outlook {
  if (!crank.turns) return 'does-not-turn';
  if (crank.starterVolts < crank.controlMinVolts) return 'low-volts';
  const ratio = crank.rpm / crank.neededRpm;
  if (ratio < 1) return 'too-slow';
  return ratio < SURE_SPEED_RATIO ? 'marginal' : 'cranks';
}

function limitedBy(rescue: Rescue, machine: Machine, crank: CrankPoint): LimitedBy {
  const { source, leads } = rescue;
  if (!source || !leads || !machine.engine) return 'none';
  const without: Record<Exclude<LimitedBy, 'none'>, Rescue> = {
    leads: { ...rescue, leads: { ...leads, sectionMm2: LEAD_RANGES.sectionMm2.max, bite: 'clean' } },
    source: { ...rescue, source: { ...source, ohms: source.ohms * NEARLY_NONE } },
    casualty: { ...rescue, casualty: rescue.casualty.map((b) => ({ ...b, ohms: b.ohms * 1000 })) },
  };
  let worst: LimitedBy = 'none';
  let most = BLAME_SHARE * Math.max(crank.rpm, 1);
  for (const [part, changed] of Object.entries(without) as [Exclude<LimitedBy, 'none'>, Rescue][]) {
    const gain = crankPoint(changed, machine.engine).rpm - crank.rpm;
    if (gain > most) {
      most = gain;
      worst = part;
    }
  }
  return worst;
}

function whyUnfit(
  machine: Machine,
  option: SourceOption,
  blocks: CasualtyBlocks,
  rules: HouseRules,
): Unfit | null {
  const wantedVolts = option.across.kind === 'block' ? 12 : machine.systemVolts;
  if (option.outputVolts !== wantedVolts) {
    return { code: 'voltage', outputVolts: option.outputVolts, systemVolts: machine.systemVolts };
  }
  if (
    machine.blocks.some((b) => b.rating.chemistry === 'lfp') &&
    !machine.points.some((p) => p.kind === 'red-post')
  ) {
    return { code: 'lithium-block' };
  }
  if (startsByWaking(machine) && option.sourceKind === 'capacitor-booster') return { code: 'unsteady' };
  if (option.across.kind === 'block') {
    if (!blocks.allMeasured) return { code: 'blocks-unread' };
    if (!blocks.othersSound) return { code: 'other-block-weak' };
  }
  if (option.sourceKind === 'lithium-pack' && blocks.measured) {
    const restVolts =
      option.across.kind === 'block' ? blocks.models[option.across.block]!.openVolts : blocks.totalVolts;
    if (restVolts < rules.lithiumPackSenseVolts) {
      return { code: 'sense', restVolts, senseVolts: rules.lithiumPackSenseVolts };
    }
  }
  return null;
}
