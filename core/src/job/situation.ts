import type { BatteryBar } from '../battery/index.js';
import type { StopCondition } from '../diagnosis/index.js';
import { NOTHING_CONNECTED, isInForce } from '../hookup/index.js';
import type { Machine } from '../machine/index.js';
import { casualtyBatteries, type CasualtyBatteries, type EarlierBelief } from '../belief/index.js';
import type { HouseRules } from '../rules/index.js';
import type { KitItem } from '../sources/index.js';
import { STOP_OF_BAR } from '../verdict/index.js';
import type { Job } from './job.js';
import { jointFindings, jointsOfJob } from './views/joints-of-job.js';
import {
  coldestTempC,
  engineRuns,
  fittedAt,
  machineAsFound,
  restVoltsNow,
  workingTempC,
} from './views/queries.js';
import { silentBar, type SilentTurns, turnsOf } from './views/silent-bar.js';

/** The part of a job that says what is true of its machine: a tap that changes none of it leaves the situation as it is. */
export type JobReadings = SilentTurns &
  Pick<Job, 'findings' | 'hookup' | 'repairs' | 'replaced' | 'stops' | 'modelId' | 'found' | 'lifts'>;

/**
 * Returns that part alone, in a form that stays equal while it says the same. Use it to keep a situation between taps.
 *
 * @example readingsOf(job).attempts.length // 0 while no try was read and none started the machine
 */
export function readingsOf(job: Job): JobReadings {
  const { readings, repairs, scene, call, parked, replaced, stops, hookup, thawedAt, modelId, found, lifts } =
    job;
  const { findings, figures } = jointFindings(job);
  const turns = turnsOf(job);
  const last = job.attempts.at(-1);
  const started = last?.outcome === 'started' && turns.attempts.at(-1) !== last ? [last] : [];
  const isNotedRunning = isInForce(hookup, 'casualty-engine-runs');
  return {
    ...{ readings, repairs, scene, call, parked, replaced, stops, findings, modelId, lifts },
    ...(thawedAt && { thawedAt }),
    ...(found && { found }),
    symptoms: turns.symptoms,
    figures: [...figures, ...turns.figures],
    attempts: [...turns.attempts, ...started],
    hookup: { ...NOTHING_CONNECTED, ...(isNotedRunning && { circumstances: ['casualty-engine-runs'] }) },
  };
}

/** Facts that a job needs and its log does not hold. */
export interface JobRecord {
  /** The atlas entry of its machine. */
  readonly machine: Machine;
  /** The donor's atlas entry; null when no vehicle lends. */
  readonly donor: Machine | null;
  /** The kit at hand: the van's own, and the kit that other vans brought. */
  readonly kit: readonly KitItem[];
  /** Other flat calls of this vehicle within the repeat window. */
  readonly earlierFlatCalls: number;
  /** The belief that earlier jobs of this vehicle left; left out: none. */
  readonly earlier?: EarlierBelief | null;
}

/** The state of a job's machine now. Every screen, sheet and calculator reads it from here. */
export interface Situation {
  readonly job: JobReadings;
  readonly record: JobRecord;
  readonly rules: HouseRules;
  /** The machine with the batteries that are in it now. */
  readonly machine: Machine;
  readonly tempC: number;
  readonly coldestC: number;
  /** Its engine runs, or its converter has taken over. */
  readonly casualtyRuns: boolean;
  /** Stop conditions that are in force: those raised, and those that follow from what was read. */
  readonly stops: readonly StopCondition[];
  /** Rest volts of each battery that is in it now, from the chassis side up; null where not read. */
  readonly restVolts: readonly (number | null)[];
  readonly batteries: CasualtyBatteries;
  /** The reason why no current may go through one of its batteries; null when there is none. */
  readonly bar: BatteryBar | null;
}

/**
 * Returns what is true of a job now: the only way to ask it. Questions whose answer runs with the clock take the moment as an argument.
 *
 * @param job the job, or the part of it that `readingsOf` keeps
 * @param rules those that the job is worked by
 * @example situationOf(job, { machine, donor: null, kit: [], earlierFlatCalls: 0 }, DEFAULT_RULES).casualtyRuns // true after a start
 */
export function situationOf(job: JobReadings, record: JobRecord, rules: HouseRules): Situation {
  const machine = asFittedNow(job, machineAsFound(job, record.machine));
  const restVolts = restVoltsNow(job, machine.batteries.length);
  let batteries: CasualtyBatteries | null = null;
  return {
    ...{ job, record, rules, machine },
    tempC: workingTempC(job),
    coldestC: coldestTempC(job),
    casualtyRuns: engineRuns(job),
    get stops() {
      return withImplied(job.stops, this.bar);
    },
    restVolts,
    // Worked out when it is first asked: most taps ask nothing of the batteries.
    get batteries() {
      return (batteries ??= batteriesNow(job, machine, restVolts));
    },
    get bar() {
      return barOf(this.batteries);
    },
  };
}

const barOf = ({ beliefs }: CasualtyBatteries): BatteryBar | null =>
  beliefs.find((belief) => belief.bar)?.bar ?? null;

/** Returns true where a stop stands by what was read, so that only another reading ends it. */
export const isShownBy = (bar: BatteryBar | null, stop: StopCondition): boolean =>
  bar !== null && STOP_OF_BAR[bar] === stop;

function withImplied(stops: readonly StopCondition[], bar: BatteryBar | null): readonly StopCondition[] {
  const implied = bar && STOP_OF_BAR[bar];
  return implied && !stops.includes(implied) ? [...stops, implied] : stops;
}

/** Returns the stops in force without the rest of the situation: for `refusalOf`, which reads nothing else. */
export function stopsInForce(job: Job, machine: Machine): readonly StopCondition[] {
  const fitted = asFittedNow(job, machineAsFound(job, machine));
  const restVolts = restVoltsNow(job, fitted.batteries.length);
  return withImplied(job.stops, barOf(batteriesNow(job, fitted, restVolts)));
}

/** True where a stop is in force: one that was raised, or a battery that may take no current. */
export const isStopped = (job: Job, machine: Machine): boolean => stopsInForce(job, machine).length > 0;

/** The machine with the batteries that this job has put into it. */
function asFittedNow({ replaced }: Pick<Job, 'replaced'>, machine: Machine): Machine {
  if (replaced.length === 0) return machine;
  return {
    ...machine,
    batteries: machine.batteries.map((battery, i) => {
      const rating = replaced.filter((r) => r.battery === i).at(-1)?.rating;
      return rating ? { ...battery, rating } : battery;
    }),
  };
}

/** The casualty's batteries as the job's readings show them. */
function batteriesNow(
  job: JobReadings,
  machine: Machine,
  restVolts: Situation['restVolts'],
): CasualtyBatteries {
  const isNew = machine.batteries.map((_, i) => fittedAt(job, i) !== null);
  const read = casualtyBatteries(machine, restVolts, workingTempC(job), coldestTempC(job), isNew);
  const bar = silentBar(job, machine);
  const batteries = bar ? barred(read, bar) : read;
  const joints = jointsOfJob(job, machine, batteries, workingTempC(job));
  return joints ? { ...batteries, joints } : batteries;
}

/** The same batteries, none of which may take a current. */
const barred = (batteries: CasualtyBatteries, bar: BatteryBar): CasualtyBatteries => ({
  ...batteries,
  beliefs: batteries.beliefs.map((belief) => ({ ...belief, bar: belief.bar ?? bar })),
});
