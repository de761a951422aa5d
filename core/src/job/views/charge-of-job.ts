import type { BatteryBar } from '../../battery/index.js';
import { MINUTE_MS } from '../../quantities/index.js';
import { anyClampOn } from '../../hookup/index.js';
import { chargeOptions, type SourceOption } from '../../plan/index.js';
import { startsByWaking } from '../../machine/index.js';
import {
  chargeAmps,
  type ChargeJudged,
  type ChargeReading,
  judgeCharge,
  judgeLift,
  type LiftState,
} from '../../charging/index.js';
import {
  CHARGED_TO_SOC,
  chargePlan,
  type ChargePlan,
  type ChargerHours,
  lampLift,
} from '../../verdict/index.js';
import type { PlanRecord } from '../events/event.js';
import { minutesBetween } from '../events/joins.js';
import { plannedOption } from './rescue-of-job.js';
import type { Job, Lifting } from '../job.js';
import type { Situation } from '../situation.js';

/** Why a battery is not put on a charger as it is. */
export type UnfitCharge =
  | { readonly code: 'bar'; readonly bar: BatteryBar }
  | { readonly code: 'charger'; readonly why: NonNullable<ChargerHours['unfit']> }
  | { readonly code: 'stopped' | 'runs' | 'unread' | 'no-mains' | 'take-out' | 'sense' };

/** One charger on one battery. */
export interface ChargeChoice {
  readonly option: SourceOption;
  readonly battery: number;
  readonly charger: string;
  /** The current that it gives this battery, A. */
  readonly amps: number;
  /** It can push more than this battery should take: it is set lower, or a smaller one is found. */
  readonly isTooLarge: boolean;
  /** To full; null where it is not reached, or nothing may be charged. */
  readonly hours: number | null;
  readonly unfit: UnfitCharge | null;
}

/** How a battery of this job is charged: the least charged one by default. */
export function chargePlanOfJob(situation: Situation, battery?: number): ChargePlan {
  const { job, machine, batteries, restVolts, tempC, coldestC, rules, record } = situation;
  const { socs, beliefs, weakest } = batteries;
  const at = battery ?? weakest;
  const read = restVolts[at] ?? null;
  const plan = chargePlan(machine.batteries[at]!, socs[at]!, read, tempC, record.kit, rules, coldestC);
  const bar = beliefs[at]!.bar ?? null;
  const hasStayed = job.lifts.some(
    ({ lift }) => lift?.battery === at && liftState(lift, situation) === 'stays',
  );
  const refused = plan.revival?.refused ?? bar ?? (hasStayed ? 'stayed' : null);
  const revival = plan.revival && { ...plan.revival, refused };
  return { ...plan, bar, revival };
}

/**
 * Returns the charges that the van can give to the batteries of this machine where they are: at its jump points, at the posts of an EV or a hybrid,
 * at each battery of a string.
 */
export function chargeChoices(situation: Situation): ChargeChoice[] {
  const { job, machine, restVolts: read, rules, record } = situation;
  const plans = machine.batteries.map((_, battery) => chargePlanOfJob(situation, battery));
  return chargeOptions(machine, record.kit).map((option): ChargeChoice => {
    const battery = option.across.kind === 'battery' ? option.across.battery : 0;
    const plan = plans[battery]!;
    const charger = plan.chargers.find(({ kitId }) => kitId === option.sourceId)!;
    const { name, amps, isTooLarge, unfit } = charger;
    const hours = plan.bar ? null : charger.hours;
    const tooHigh = startsByWaking(machine) && option.source.alternator!.volts > rules.wakeMaxVolts;
    const why = (): UnfitCharge | null => {
      if (plan.bar) return { code: 'bar', bar: plan.bar };
      if (situation.stops.length > 0) return { code: 'stopped' };
      if (situation.casualtyRuns) return { code: 'runs' };
      if (unfit) return { code: 'charger', why: unfit };
      if (tooHigh) return { code: 'charger', why: 'volts-too-high' };
      if (read[battery] === null) return { code: 'unread' };
      if (plan.revival) return { code: 'sense' };
      if (plan.place === 'take-out' && plan.placeReason !== 'long') return { code: 'take-out' };
      return job.scene?.mainsNear ? null : { code: 'no-mains' };
    };
    return { option, battery, charger: name, amps, isTooLarge, hours, unfit: why() };
  });
}

/** The plan of a charge to full, as the log keeps it; null for one that does not fit. */
export function chargeRecord({ option, hours, unfit }: ChargeChoice): PlanRecord | null {
  if (unfit || hours === null) return null;
  return {
    optionId: option.id,
    sourceId: option.sourceId,
    leadSetId: null,
    sourceKind: option.sourceKind,
    outlook: 'charges',
    odds: null,
    starterVolts: null,
    starterAmps: null,
    rpm: null,
    neededRpm: null,
    wakeVolts: null,
    postVolts: null,
    waitMinutes: Math.round(hours * 60),
    chargeOnly: true,
    inputs: [],
  };
}

/**
 * Returns what the last look at a lift tells; null before one.
 *
 * @example liftState(job.lifting, situation) // 'rises', of a battery that read 2.1 V at rest and 4.0 V after 10 min
 */
export function liftState(
  { battery, fromVolts, joinedAt, readings }: Lifting,
  situation: Situation,
): LiftState | null {
  const last = readings.at(-1);
  if (!last) return null;
  const { machine, coldestC, rules } = situation;
  const { rating } = machine.batteries[battery]!;
  const lift = lampLift(rating, fromVolts ?? 0, coldestC, rules);
  return judgeLift(lift, rules.chargerSenseVolts, minutesBetween(joinedAt, last.at), last);
}

/** A charger that works on a battery now. */
export interface UnderCharge {
  readonly since: string;
  /** When it is due to be full, or to be tried. */
  readonly dueAt: string;
  /** It is charged to full, not for a try. */
  readonly isToFull: boolean;
  /** The battery of a string that it is on; 0 where it is on all there is. */
  readonly battery: number;
}

/** True while something is joined that must be off before any crank. */
export const mustComeOff = ({ plan, hookup }: Pick<Job, 'plan' | 'hookup'>): boolean =>
  plan !== null && plan.chargeOnly && (anyClampOn(hookup) || hookup.pluggedIn);

/** Whether the job's battery is on a mains charger now; null when it is not. */
export function underCharge(job: Pick<Job, 'plan' | 'joinedSince'>): UnderCharge | null {
  const { plan, joinedSince } = job;
  if (plan?.sourceKind !== 'mains-charger' || joinedSince === null) return null;
  const dueAt = new Date(Date.parse(joinedSince) + plan.waitMinutes * MINUTE_MS).toISOString();
  const battery = Number(/#battery(\d+)$/.exec(plan.optionId)?.[1] ?? 0);
  return { since: joinedSince, dueAt, isToFull: plan.outlook === 'charges', battery };
}

/**
 * Judges a reading of the charge under way for the battery that it is on.
 *
 * @param at ISO 8601 moment of the reading
 * @returns null while nothing is on charge
 */
export function chargeSeen(
  job: Pick<Job, 'plan' | 'joinedSince'>,
  situation: Situation,
  reading: ChargeReading,
  at: string,
): ChargeJudged | null {
  const charge = underCharge(job);
  if (!charge) return null;
  const { battery } = charge;
  const { machine, batteries, tempC } = situation;
  const { rating } = machine.batteries[battery]!;
  return judgeCharge(
    {
      rating,
      fromSoc: batteries.socs[battery]!,
      toSoc: CHARGED_TO_SOC,
      tempC,
      minutes: (Date.parse(at) - Date.parse(charge.since)) / MINUTE_MS,
      setAmps: plannedOption(situation, job.plan)?.source.alternator?.maxAmps ?? chargeAmps(rating),
    },
    reading,
  );
}
