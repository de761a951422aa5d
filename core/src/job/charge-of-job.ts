import type { BatteryBar } from '../battery/bar.js';
import { MINUTE_MS } from '../quantities/time.js';
import { anyClampOn } from '../hookup/state.js';
import { chargeOptions } from '../plan/charge-options.js';
import type { SourceOption } from '../plan/options.js';
import { type Machine, startsByWaking } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';
import type { KitItem } from '../sources/kit.js';
import { chargeHours } from '../charging/charge-time.js';
import { type ChargeJudged, type ChargeReading, judgeCharge } from '../charging/charge-watch.js';
import { CHARGED_TO_SOC, type ChargePlan, type ChargerHours, chargePlan } from '../verdict/charge-plan.js';
import type { PlanRecord } from './events.js';
import type { Job } from './job.js';
import { coldestTempC, restVoltsByBattery, workingTempC } from './queries.js';
import { batteriesOfJob, type JobReadings } from './rescue-of-job.js';

/** Why a battery is not put on a charger as it is. */
export type UnfitCharge =
  | { readonly code: 'bar'; readonly bar: BatteryBar }
  | { readonly code: 'charger'; readonly why: NonNullable<ChargerHours['unfit']> }
  | { readonly code: 'unread' | 'no-mains' | 'take-out' | 'sense' };

/** One charger on one battery. */
export interface ChargeChoice {
  readonly option: SourceOption;
  readonly battery: number;
  readonly charger: string;
  /** What it gives this battery, A. */
  readonly amps: number;
  /** It can push more than this battery should take: it is set lower, or a smaller one is found. */
  readonly isTooLarge: boolean;
  /** To full; null where it is not reached, or nothing may be charged. */
  readonly hours: number | null;
  readonly unfit: UnfitCharge | null;
}

/**
 * How a battery of this job is charged: the least charged one unless told otherwise.
 *
 * @param kit whose chargers are looked at
 */
export function chargePlanOfJob(
  job: JobReadings,
  machine: Machine,
  kit: readonly KitItem[],
  rules: HouseRules,
  battery?: number,
): ChargePlan {
  const { socs, beliefs, weakest } = batteriesOfJob(job, machine);
  const at = battery ?? weakest;
  const read = restVoltsByBattery(job, machine.batteries.length)[at] ?? null;
  const tempC = workingTempC(job);
  const plan = chargePlan(machine.batteries[at]!, socs[at]!, read, tempC, kit, rules, coldestTempC(job));
  const bar = beliefs[at]!.bar ?? null;
  const revival = plan.revival && { ...plan.revival, refused: plan.revival.refused ?? bar };
  return { ...plan, bar, revival };
}

/**
 * What the chargers of the van can do for the batteries of this machine where they are: at its jump points, at the posts of an EV or a hybrid,
 * at each battery of a string.
 */
export function chargeChoices(
  job: JobReadings,
  machine: Machine,
  kit: readonly KitItem[],
  rules: HouseRules,
): ChargeChoice[] {
  const read = restVoltsByBattery(job, machine.batteries.length);
  const plans = machine.batteries.map((_, battery) => chargePlanOfJob(job, machine, kit, rules, battery));
  return chargeOptions(machine, kit).map((option): ChargeChoice => {
    const battery = option.across.kind === 'battery' ? option.across.battery : 0;
    const plan = plans[battery]!;
    const { name, amps, unfit } = plan.chargers.find(({ kitId }) => kitId === option.sourceId)!;
    // Where it stands, in its own cold: a bench is warmer.
    const { rating } = machine.batteries[battery]!;
    const hours =
      plan.bar || unfit ? null : chargeHours(rating, plan.fromSoc, plan.toSoc, amps, workingTempC(job));
    const tooHigh = startsByWaking(machine) && option.source.alternator!.volts > rules.wakeMaxVolts;
    const why = (): UnfitCharge | null => {
      if (plan.bar) return { code: 'bar', bar: plan.bar };
      if (unfit) return { code: 'charger', why: unfit };
      if (tooHigh) return { code: 'charger', why: 'volts-too-high' };
      if (read[battery] === null) return { code: 'unread' };
      if (plan.revival) return { code: 'sense' };
      if (plan.place === 'take-out' && plan.placeReason !== 'long') return { code: 'take-out' };
      return job.scene?.mainsNear ? null : { code: 'no-mains' };
    };
    const isTooLarge = option.source.alternator!.maxAmps > amps;
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
 * What a reading of the charge under way means for the battery that it is on.
 *
 * @param at ISO 8601 moment of the reading
 * @returns null while nothing is on charge
 */
export function chargeSeen(
  job: Job,
  machine: Machine,
  reading: ChargeReading,
  at: string,
): ChargeJudged | null {
  const charge = underCharge(job);
  if (!charge) return null;
  const { battery } = charge;
  return judgeCharge(
    {
      rating: machine.batteries[battery]!.rating,
      fromSoc: batteriesOfJob(job, machine).socs[battery]!,
      toSoc: CHARGED_TO_SOC,
      tempC: workingTempC(job),
      minutes: (Date.parse(at) - Date.parse(charge.since)) / MINUTE_MS,
    },
    reading,
  );
}
