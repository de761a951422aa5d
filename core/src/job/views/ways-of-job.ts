import { type Machine, type RollingStart, rollingStart, startsByWaking } from '../../machine/index.js';
import {
  type BatteryBelief,
  beliefsWhileJoined,
  type CrankMoment,
  type EarlierBelief,
  type Findings,
  type TryMade,
} from '../../belief/index.js';
import {
  type Fetch,
  HAND_MINUTES,
  momentOf,
  planCase,
  type PlanCase,
  type RankedOption,
  SPARE_LEAST_CCA_SHARE,
  type SpareBattery,
  spareBelief,
  type WayOption,
  type WaysInput,
} from '../../plan/index.js';
import { isLeadAcid } from '../../battery/index.js';
import { anyClampOn } from '../../hookup/index.js';
import { BOOSTER_FILLED_VOLTS, boosterFillSeconds, type KitItem } from '../../sources/index.js';
import type { Attempt, Job } from '../job.js';
import { evidenceOfJob, profileOfJob } from './evidence-of-job.js';
import { repairsMade } from './repairs-of-job.js';
import { restSecondsLeft } from './rest-owed.js';
import { planCases, rankForJob } from './rescue-of-job.js';
import type { Situation } from '../situation.js';

/**
 * All that the search for ways works from in this job, at the moment `at`: what fits, with the charge that the battery has taken in so far, and
 * every try that was made. Null for a machine that wakes, or whose batteries forbid any current.
 *
 * @param cases what the figures of each fitting option rest on, by `planCases`
 * @param others what other vans could bring
 */
export function waysInput(
  job: Job,
  situation: Situation,
  ranked: readonly RankedOption[],
  cases: ReadonlyMap<string, PlanCase>,
  at: string,
  others: readonly OtherVan[] = [],
): WaysInput | null {
  const { machine, batteries: read, tempC, rules } = situation;
  const { kit } = situation.record;
  if (startsByWaking(machine) || situation.bar !== null) return null;
  const alone = planCase(machine, null, read, tempC, rules);
  if (!alone) return null;
  const now = beliefsNow(job, cases, read.beliefs, at);
  const from = (plan: PlanCase): PlanCase => ({ ...plan, beliefs: now });
  const optionsOf = (
    of: readonly RankedOption[],
    plans: ReadonlyMap<string, PlanCase>,
    fetch?: Fetch,
  ): WayOption[] =>
    of.flatMap(({ option, chargeMinutes }): WayOption[] => {
      const plan = plans.get(option.id);
      if (!plan) return [];
      const { id, sourceKind, across, chargeOnly } = option;
      const least = chargeOnly ? chargeMinutes : Math.min(chargeMinutes, rules.donorWaitMinLeast);
      const fills = filledOf(option);
      return [
        {
          ...{ id, sourceKind, across, plan: from(plan), leastMinutes: Math.round(least) },
          ...(fetch && { fetch }),
          ...(fills && { filled: { ...fills, plan: from(fills.plan) } }),
        },
      ];
    });
  /** The booster once its converter has filled it from the weakest battery; null where it cannot, or hardly gains. */
  const filledOf = ({ id, sourceId }: RankedOption['option']): WayOption['filled'] | null => {
    const item = [...kit, ...others.flatMap((van) => van.kit)].find((k) => k.id === sourceId);
    if (item?.kind !== 'capacitor-booster') return null;
    const seconds = boosterFillSeconds(item, BOOSTER_FILLED_VOLTS, read.models[read.weakest]!);
    if (seconds === null || item.volts > BOOSTER_FILLED_VOLTS - FILL_WORTH_VOLTS) return null;
    // Its leads are its own: nothing else of the van is solved again.
    const full = [{ ...item, volts: BOOSTER_FILLED_VOLTS }];
    const plan = planCases(situation, rankForJob(situation, full)).get(id);
    return plan ? { minutes: Math.max(1, Math.ceil(seconds / 60)), plan } : null;
  };
  const brought = others.map((van) => ({ ...van, fetch: fetchOf(job, van, at) }));
  return {
    options: [
      ...optionsOf(ranked, cases),
      ...brought.flatMap((van) => optionsOf(bestSources(van.ranked, van.cases), van.cases, van.fetch)),
    ],
    own: from(alone),
    spares: [
      ...sparesFor(machine, kit),
      ...brought.flatMap(({ kit: theirs, fetch }) =>
        sparesFor(machine, theirs).map((spare) => ({ ...spare, fetch })),
      ),
    ],
    mayRoll: rollingOfJob(job, situation).allowed,
    restMinutes: restSecondsLeft(job, at, rules) / 60,
    joinedOptionId: anyClampOn(job.hookup) ? (job.plan?.optionId ?? null) : null,
    hasFailed: job.attempts.some(({ outcome }) => outcome !== null && outcome !== 'started'),
  };
}

/**
 * Everything that a job says of its machine: plan, checks and verdict read this. A try counts in the circuit that was joined then. Where its
 * kit is gone it counts by its word.
 *
 * @param ranked what fits, by `rankForJob`: only tries ask for it
 */
export function findingsOfJob(
  job: Job,
  situation: Situation,
  ranked: readonly RankedOption[] = job.attempts.length > 0 ? rankForJob(situation) : [],
): Findings {
  const { machine, batteries: read, tempC, rules, record } = situation;
  const alone =
    startsByWaking(machine) || job.attempts.length === 0 ? null : planCase(machine, null, read, tempC, rules);
  return {
    profile: profileOfJob(job, record.machine),
    repairs: repairsMade(job),
    earlier: record.earlier ? withoutFound(record.earlier, job) : null,
    evidence: evidenceOfJob(job, record.machine, record.earlierFlatCalls),
    tries: alone ? triesOf(job, casesTried(job, situation, ranked), alone, read.beliefs) : [],
  };
}

/** The earlier belief without the strengths of batteries that are there no longer: another was found in their place. */
function withoutFound(earlier: EarlierBelief, { found = [] }: Pick<Job, 'found'>): EarlierBelief {
  if (found.length === 0) return earlier;
  const isGone = (at: number): boolean => found.some(({ battery }) => battery === at);
  return { ...earlier, strengths: earlier.strengths.map((known, i) => (isGone(i) ? null : known)) };
}

/** The cases of the options that were joined for a try or a charge. */
function casesTried(
  { attempts, charged }: Job,
  situation: Situation,
  ranked: readonly RankedOption[],
): ReadonlyMap<string, PlanCase> {
  const joined = [charged, ...attempts].flatMap((one) => one?.optionId ?? []);
  return planCases(
    situation,
    ranked.filter(({ option }) => joined.includes(option.id)),
  );
}

/** The kit of another van, ranked for this job. */
export interface OtherVan {
  readonly vanId: string;
  readonly kit: readonly KitItem[];
  readonly ranked: readonly RankedOption[];
  readonly cases: ReadonlyMap<string, PlanCase>;
  /** How long it takes where it has not been asked yet; left out where nobody knows. */
  readonly minutes?: number;
}

/** A booster that stands this near to full is not filled first, V. */
const FILL_WORTH_VOLTS = 0.3;

/** Of each other van so many sources are looked at, each with the leads that rank best: it is asked for one thing, not for all it has. */
const FETCHED_MOST = 3;

/** Returns the best of each source, with the leads that rank best for it, the best first. */
export function bestSources(
  ranked: readonly RankedOption[],
  cases: ReadonlyMap<string, PlanCase>,
): readonly RankedOption[] {
  const best = new Map<string, RankedOption>();
  for (const one of ranked)
    if (cases.has(one.option.id) && !best.has(one.option.sourceId)) best.set(one.option.sourceId, one);
  return [...best.values()].slice(0, FETCHED_MOST);
}

/** How long until that van is here: as it said when it was asked, less what has passed since. */
function fetchOf(
  { vans = [] }: Pick<Job, 'vans'>,
  { vanId, minutes = HAND_MINUTES.fetch }: OtherVan,
  at: string,
): Fetch {
  const asked = vans.find((v) => v.vanId === vanId);
  if (asked?.calledAt == null || asked.minutes === null) return { vanId, minutes };
  const passed = (Date.parse(at) - Date.parse(asked.calledAt)) / 60_000;
  return { vanId, minutes: Math.max(0, asked.minutes - passed) };
}

/** Whether this machine may be rolled here, by its scene and what it read by itself. */
export function rollingOfJob(
  { hookup }: Pick<Job, 'hookup'>,
  { job, machine, restVolts, casualtyRuns, stops }: Situation,
): RollingStart {
  return rollingStart(machine, {
    sloping: job.scene?.sloping ?? false,
    ontoRoad: job.scene?.place === 'street' || job.scene?.place === 'verge',
    restVolts: machine.batteries.length > 1 ? null : (restVolts[0] ?? null),
    isJoined: anyClampOn(hookup),
    runs: casualtyRuns,
    isStopped: stops.length > 0,
  });
}

/** Returns the belief of the batteries now that a source has charged them: still does, or did since they were last read. */
function beliefsNow(
  job: Job,
  cases: ReadonlyMap<string, PlanCase>,
  read: readonly BatteryBelief[],
  at: string,
): readonly BatteryBelief[] {
  if (job.chargesSince !== null && job.plan) {
    const minutes = (Date.parse(at) - Date.parse(job.chargesSince)) / 60_000;
    return chargedBy(cases.get(job.plan.optionId), read, minutes);
  }
  const { charged } = job;
  if (!charged) return read;
  const isReadSince = job.readings.some((r) => r.kind === 'rest' && r.at > charged.at);
  return isReadSince ? read : chargedBy(cases.get(charged.optionId), read, charged.minutes);
}

function chargedBy(
  plan: PlanCase | undefined,
  beliefs: readonly BatteryBelief[],
  minutes: number,
): readonly BatteryBelief[] {
  const whole = Math.round(Math.max(0, minutes));
  return plan?.rescue.source?.alternator && whole > 0
    ? beliefsWhileJoined(plan.rescue, beliefs, whole)[whole]!
    : beliefs;
}

/** The tries that have ended, each in its own moment; those with kit that is there no more tell nothing here. */
function triesOf(
  job: Job,
  cases: ReadonlyMap<string, PlanCase>,
  alone: PlanCase,
  read: readonly BatteryBelief[],
): TryMade[] {
  return job.attempts.flatMap((attempt): TryMade[] => {
    const { outcome, lowestVolts, startedAt } = attempt;
    const moment = outcome === null ? null : momentOfTry(job, attempt, cases, alone, read);
    const repaired = job.repairs.filter(({ at }) => at < startedAt).length;
    return moment && outcome ? [{ at: startedAt, repaired, moment, outcome, lowestVolts }] : [];
  });
}

/**
 * Returns the rescue in the moment of a try; null for one that was rolled, or whose kit is there no more.
 *
 * @param alone the machine by itself
 * @param read its batteries as they were read
 */
export function momentOfTry(
  { charged }: Pick<Job, 'charged'>,
  { optionId, waitedMinutes, startedAt, rolled }: Attempt,
  cases: ReadonlyMap<string, PlanCase>,
  alone: PlanCase,
  read: readonly BatteryBelief[],
): CrankMoment | null {
  if (rolled) return null;
  if (optionId === null) {
    const before = charged && charged.at <= startedAt ? charged : null;
    return momentOf(alone, before ? chargedBy(cases.get(before.optionId), read, before.minutes) : read);
  }
  const plan = cases.get(optionId);
  // Of a charger that must be off before the crank no try is planned.
  return !plan || plan.chargeOnly ? null : momentOf(plan, chargedBy(plan, read, waitedMinutes));
}

/** Batteries of the van that may go into a machine of one lead-acid battery. */
function sparesFor(machine: Machine, kit: readonly KitItem[]): SpareBattery[] {
  const [own] = machine.batteries;
  if (!own || machine.batteries.length > 1 || !isLeadAcid(own.rating.chemistry)) return [];
  return kit.flatMap((item): SpareBattery[] =>
    item.kind === 'spare-batteries' &&
    isLeadAcid(item.battery.chemistry) &&
    item.battery.ccaAmps >= SPARE_LEAST_CCA_SHARE * own.rating.ccaAmps
      ? [{ id: item.id, belief: spareBelief(item.battery, item.soc) }]
      : [],
  );
}
