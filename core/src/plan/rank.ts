import type { BatteryBar } from '../battery/index.js';
import type { HouseRules } from '../rules/index.js';
import type { Rescue } from '../circuit/index.js';
import { LEAD_RANGES } from '../leads/index.js';
import { asWired, isPositiveEarth, type Machine, startsByWaking } from '../machine/index.js';
import type { KitItem } from '../sources/index.js';
import { type CasualtyBatteries, stateOf } from '../belief/index.js';
import { clampPoints, terminalOf } from './clamp-points.js';
import { type SourceOption, sourceOptions } from './options.js';
import { afterWait, type PlanCase } from './plan-case.js';
import {
  type CrankPoint,
  crankPoint,
  USUAL_CONVERTER,
  type WakeCase,
  wakePoint,
  type WakePoint,
} from '../crank/index.js';

/** Why an option cannot be used here. */
export type Unfit =
  | { readonly code: 'battery-bar'; readonly bar: BatteryBar; readonly battery: number }
  | { readonly code: 'voltage'; readonly outputVolts: number; readonly systemVolts: number }
  | { readonly code: 'sense'; readonly restVolts: number; readonly senseVolts: number }
  | { readonly code: 'unsteady' }
  | { readonly code: 'lithium-battery' }
  | { readonly code: 'other-battery-weak' }
  | { readonly code: 'batteries-unread' }
  | { readonly code: 'no-mains' }
  /** Its body is on minus, the machine's on plus: two bodies that touch would be a dead short. */
  | { readonly code: 'bodies-apart' }
  | { readonly code: 'house-rule' }
  | { readonly code: 'leads-short'; readonly lengthM: number; readonly neededM: number }
  | { readonly code: 'over-current'; readonly amps: number; readonly maxAmps: number };

/** The part that holds an option back most: found by taking that part's resistance away and solving again. */
export type LimitedBy = 'leads' | 'source' | 'casualty' | 'none';

export const OUTLOOKS = [
  'cranks',
  'marginal',
  'too-slow',
  'does-not-turn',
  'low-volts',
  'wakes',
  'does-not-wake',
  /** It is brought to full and is not tried with it on. */
  'charges',
] as const;
export type Outlook = (typeof OUTLOOKS)[number];

export interface RankedOption {
  readonly option: SourceOption;
  readonly unfit: Unfit | null;
  readonly crank: CrankPoint | null;
  readonly wake: WakePoint | null;
  readonly outlook: Outlook | null;
  readonly limitedBy: LimitedBy;
  /** Minutes of charging before the crank that the figures count on; 0 for none. */
  readonly chargeMinutes: number;
  /** The figure that it is ranked by: crank speed over needed, or wake volts over the least allowed. */
  readonly score: number;
}

/** Above this much more speed than needed a start is expected, below it may go either way. */
const SURE_SPEED_RATIO = 1.25;
/** Share of a resistance kept when asking what would change without it. */
const NEARLY_NONE = 0.02;
/** Crank speed regained, as a share, before a part is blamed. */
const BLAME_SHARE = 0.03;

/** The option's circuit with every clamp on and the source switched on. */
export function connectedRescue(
  machine: Machine,
  option: SourceOption | null,
  batteries: CasualtyBatteries,
  tempC: number,
  rules: HouseRules,
): Rescue {
  const wired = asWired(machine);
  const points = option && clampPoints(wired, option.across, rules);
  const red = points && terminalOf(wired, points.red.id);
  const black = points && terminalOf(wired, points.black.id);
  return {
    casualty: batteries.models,
    load: { kind: 'none' },
    source: option?.source ?? null,
    sourceOn: true,
    leads: option?.leads ?? null,
    tempC,
    ...(batteries.joints && { joints: batteries.joints }),
    clamps: { redCasualty: red, redSource: red, blackSource: black, blackCasualty: black },
  };
}

/** Minutes an ordinary charger works before the crank is tried: an engine needs its fuel's while. */
function chargerMinutes(machine: Machine, rules: HouseRules): number {
  return machine.engine?.fuel === 'diesel' ? rules.chargerMinDiesel : rules.chargerMinPetrol;
}

/** Minutes of charging by rule, where none were computed: longer for a diesel and for a very flat battery; none without a supply. */
export function ruledWaitMinutes(
  machine: Machine,
  option: SourceOption,
  lowestSoc: number,
  rules: HouseRules,
): number {
  if (option.chargeOnly) return chargerMinutes(machine, rules);
  if (option.sourceKind === 'mains-charger') return rules.engineStartWaitMin;
  if (!option.donorRuns || rules.donorEngine === 'off-throughout') return 0;
  if (lowestSoc <= VERY_FLAT_SOC) return rules.donorWaitMinVeryFlat;
  return machine.engine?.fuel === 'diesel' ? rules.donorWaitMinDiesel : rules.donorWaitMinPetrol;
}
/** Charge at which a battery counts as very flat. */
const VERY_FLAT_SOC = 0.03;

/** Returns the input of one option's figures: everything known of the rescue before its crank. Null for a machine that wakes. */
export function planCase(
  machine: Machine,
  option: SourceOption | null,
  batteries: CasualtyBatteries,
  tempC: number,
  rules: HouseRules,
): PlanCase | null {
  if (!machine.engine) return null;
  return {
    rescue: connectedRescue(machine, option, batteries, tempC, rules),
    beliefs: batteries.beliefs,
    engine: machine.engine,
    waitMinutes: option ? ruledWaitMinutes(machine, option, Math.min(...batteries.socs), rules) : 0,
    chargeOnly: option?.chargeOnly ?? false,
  };
}

/** Seconds a wake-up is followed for: the units' first draw, the contactors, and a while after. */
const WAKE_SECONDS = 8;

/**
 * The wake-up of an EV or hybrid with this option, to be followed in time.
 *
 * @param tractionCharged false when the traction battery is flat, so that no converter takes over
 */
export function wakeCase(
  machine: Machine,
  option: SourceOption,
  batteries: CasualtyBatteries,
  tempC: number,
  rules: HouseRules,
  tractionCharged: boolean,
): WakeCase {
  return {
    rescue: connectedRescue(machine, option, batteries, tempC, rules),
    batteries: batteries.beliefs.map((belief) => ({ rating: belief.rating, state: stateOf(belief, tempC) })),
    amps: rules.wakeAmps,
    minVolts: rules.wakeMinVolts,
    maxVolts: rules.wakeMaxVolts,
    converter: tractionCharged ? USUAL_CONVERTER : null,
    seconds: WAKE_SECONDS,
  };
}

/** The limits of the place. */
export interface Reach {
  /** A socket is within reach. */
  readonly mainsNear: boolean;
  /** Length of lead that the parked donor needs, metres; null while it is not parked. */
  readonly donorMetres: number | null;
}
const USUAL_REACH: Reach = { mainsNear: false, donorMetres: null };

/** All options solved, those that fit first, best first. */
export function rankOptions(
  machine: Machine,
  kit: readonly KitItem[],
  batteries: CasualtyBatteries,
  tempC: number,
  rules: HouseRules,
  reach: Reach = USUAL_REACH,
): RankedOption[] {
  return sourceOptions(machine, kit, batteries, tempC, rules)
    .map((option) => solveOption(machine, option, batteries, tempC, rules, reach))
    .sort(
      (a, b) =>
        Number(a.unfit !== null) - Number(b.unfit !== null) ||
        Number(isSureNow(b)) - Number(isSureNow(a)) ||
        b.score - a.score,
    );
}

/** Starts it, and at once: what must charge for half an hour first comes after these. */
function isSureNow({ outlook, option }: RankedOption): boolean {
  return (outlook === 'cranks' || outlook === 'wakes') && !option.chargeOnly;
}

function solveOption(
  machine: Machine,
  option: SourceOption,
  batteries: CasualtyBatteries,
  tempC: number,
  rules: HouseRules,
  reach: Reach,
): RankedOption {
  const unfit = whyUnfit(machine, option, batteries, rules, reach);
  const none = {
    option,
    unfit,
    crank: null,
    wake: null,
    outlook: null,
    limitedBy: 'none',
    score: 0,
    chargeMinutes: ruledWaitMinutes(machine, option, Math.min(...batteries.socs), rules),
  } as const;
  if (unfit) return none;
  const rested = planCase(machine, option, batteries, tempC, rules);
  if (!machine.engine || !rested) {
    const rescue = connectedRescue(machine, option, batteries, tempC, rules);
    const wake = wakePoint(rescue, rules.wakeAmps);
    const steady = wake.postVolts >= rules.wakeMinVolts && wake.postVolts <= rules.wakeMaxVolts;
    return {
      ...none,
      wake,
      outlook: steady ? 'wakes' : 'does-not-wake',
      score: wake.postVolts / rules.wakeMinVolts,
    };
  }
  const { rescue } = afterWait(rested);
  const crank = crankPoint(rescue, machine.engine);
  const maxAmps = option.source.maxAmps ?? Infinity;
  if (crank.sourceAmps > maxAmps)
    return { ...none, unfit: { code: 'over-current', amps: crank.sourceAmps, maxAmps } };
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

/** Returns the outlook of a crank point, in five words the screens know. */
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
    leads: { ...rescue, leads: { ...leads, sectionMm2: LEAD_RANGES.sectionMm2.max, contact: 'clean' } },
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
  batteries: CasualtyBatteries,
  rules: HouseRules,
  { mainsNear, donorMetres }: Reach,
): Unfit | null {
  const barred = batteries.beliefs.findIndex((b) => b.bar !== undefined);
  if (barred >= 0) return { code: 'battery-bar', bar: batteries.beliefs[barred]!.bar!, battery: barred };
  if (option.sourceKind === 'hobby-lithium' && rules.hobbyLithium === 'refused')
    return { code: 'house-rule' };
  if (option.chargeOnly && rules.chargeOnVehicle === 'take-out') return { code: 'house-rule' };
  if (option.sourceKind === 'donor' && isPositiveEarth(machine)) return { code: 'bodies-apart' };
  if (option.sourceKind === 'donor' && donorMetres !== null && option.leads.lengthM < donorMetres)
    return { code: 'leads-short', lengthM: option.leads.lengthM, neededM: donorMetres };
  const wantedVolts = option.across.kind === 'battery' ? 12 : machine.systemVolts;
  if (option.outputVolts !== wantedVolts) {
    return { code: 'voltage', outputVolts: option.outputVolts, systemVolts: machine.systemVolts };
  }
  if (
    machine.batteries.some((b) => b.rating.chemistry === 'lfp') &&
    !machine.points.some((p) => p.kind === 'red-post')
  ) {
    return { code: 'lithium-battery' };
  }
  if (option.sourceKind === 'mains-charger' && !mainsNear) return { code: 'no-mains' };
  if (startsByWaking(machine) && (option.sourceKind === 'capacitor-booster' || option.chargeOnly))
    return { code: 'unsteady' };
  if (option.across.kind === 'battery') {
    if (!batteries.allMeasured) return { code: 'batteries-unread' };
    if (!batteries.othersSound) return { code: 'other-battery-weak' };
  }
  const senseVolts =
    option.sourceKind === 'lithium-pack'
      ? rules.lithiumPackSenseVolts
      : option.sourceKind === 'mains-charger'
        ? rules.chargerSenseVolts
        : null;
  if (senseVolts !== null && batteries.measured) {
    const restVolts =
      option.across.kind === 'battery'
        ? batteries.models[option.across.battery]!.openVolts
        : batteries.totalVolts;
    if (restVolts < senseVolts) return { code: 'sense', restVolts, senseVolts };
  }
  return null;
}
