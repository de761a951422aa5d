import { type BatteryRating, coldestOf } from '../../battery/index.js';
import { POLARITY_SIGNS_NEEDED, type ReadingKind } from '../../diagnosis/index.js';
import { anyClampOn, clampsInHand, NOTHING_CONNECTED, isInForce } from '../../hookup/index.js';
import type { HouseRules } from '../../rules/index.js';
import type { VerdictRecord } from '../../verdict/index.js';
import { MINUTE_MS } from '../../quantities/index.js';
import type { Machine } from '../../machine/index.js';
import type { Attempt, Circumstances, Job, Reading } from '../job.js';

/** The latest rest reading of each battery by itself, from the chassis side up; null where not read. With help joined posts show the helper. */
export function restVoltsByBattery(job: Pick<Job, 'readings'>, batteries: number): (number | null)[] {
  return Array.from(
    { length: batteries },
    (_, i) =>
      job.readings.filter((r) => r.kind === 'rest' && r.battery === i && !wasHelped(r.during)).at(-1)
        ?.volts ?? null,
  );
}

/** The part of a job that tells which batteries sat in its machine when it was opened. */
export type AsFound = Pick<Job, 'call' | 'modelId' | 'found'>;

/** True where a charger charged the battery within the job. */
export const wasCharged = ({ charged, chargeReadings }: Pick<Job, 'charged' | 'chargeReadings'>): boolean =>
  charged?.chargeOnly === true || chargeReadings.length > 0;

/** The machine with the batteries that sat in it when the job was opened: as found, else of the record, else of the model. */
export function machineAsFound({ call, modelId, found = [] }: AsFound, entry: Machine): Machine {
  const recorded = modelId === call.modelId ? (call.fitted ?? []) : [];
  if (found.length === 0 && recorded.length === 0) return entry;
  const ratingOf = (at: number): BatteryRating | undefined =>
    found.find(({ battery }) => battery === at)?.rating ?? recorded[at];
  return {
    ...entry,
    batteries: entry.batteries.map((battery, i) => ({ ...battery, rating: ratingOf(i) ?? battery.rating })),
  };
}

/** When the battery that sits in a place now was fitted by this job; null for one that was found there. */
export function fittedAt({ replaced }: Pick<Job, 'replaced'>, battery: number): string | null {
  return replaced.filter((r) => r.battery === battery || r.battery === null).at(-1)?.at ?? null;
}

/** The same of the batteries that are in it now: a battery that was fitted has not been read by what its forerunner showed. */
export function restVoltsNow(job: Pick<Job, 'readings' | 'replaced'>, batteries: number): (number | null)[] {
  const ofFitted = job.readings.filter((r) => r.at > (fittedAt(job, r.battery) ?? ''));
  return restVoltsByBattery({ readings: ofFitted }, batteries);
}

/** The latest reading of a kind, or null. */
export function latestReading(job: Pick<Job, 'readings'>, kind: ReadingKind): Reading | null {
  return job.readings.filter((r) => r.kind === kind).at(-1) ?? null;
}

/** The latest reading of a kind that was taken with nothing joined: the battery's own; null where there is none. */
export function latestOwnReading(job: Pick<Job, 'readings'>, kind: ReadingKind): Reading | null {
  return job.readings.filter((r) => r.kind === kind && !wasHelped(r.during)).at(-1) ?? null;
}

/** True after a charge whose outcome nobody has read: what the battery holds now is not known. */
export function isChargeUnread({ charged, readings }: Pick<Job, 'charged' | 'readings'>): boolean {
  return charged?.chargeOnly === true && !readings.some(({ kind, at }) => kind === 'rest' && at > charged.at);
}

/** The try that is running now, or null. */
export function runningAttempt(job: Pick<Job, 'attempts'>): Attempt | null {
  const last = job.attempts.at(-1);
  return last?.endedAt === null ? last : null;
}

/** True of a machine that was told to start by itself: its owner wants a check. */
export const startsAlone = ({ findings }: Pick<Job, 'findings'>): boolean =>
  findings['try-alone'] === 'started';

/** Amps drawn while it sleeps, whichever way round the clamp meter sat; null where not measured. */
export function drainAmps({ findings }: Pick<Job, 'findings'>): number | null {
  return typeof findings.drain === 'number' ? Math.abs(findings.drain) : null;
}

/** Either nothing is on (a try on its own battery), or every clamp in hand is. */
export function isHookupWhole({ hookup, plan }: Pick<Job, 'hookup' | 'plan'>): boolean {
  if (!anyClampOn(hookup)) return true;
  return clampsInHand({ leadSetId: plan?.leadSetId ?? null }).every((clamp) => hookup.clamps[clamp] !== null);
}

/** True once enough signs say which post is positive. */
export function isPolarityProved({ polaritySigns }: Pick<Job, 'polaritySigns'>): boolean {
  return polaritySigns.length >= POLARITY_SIGNS_NEEDED;
}

/** True once a try ended with the machine running or awake. */
export function hasStarted(job: Pick<Job, 'attempts'>): boolean {
  return job.attempts.at(-1)?.outcome === 'started';
}

/** True while its engine runs or its converter has taken over: started here, or noted as running when it was found. */
export function engineRuns(job: Pick<Job, 'attempts' | 'hookup'>): boolean {
  return hasStarted(job) || isInForce(job.hookup, 'casualty-engine-runs');
}

/** The temperature a job works with: found on the scene, or else reported with the call. */
export function workingTempC(job: Pick<Job, 'scene' | 'call'>): number {
  return job.scene?.ambientC ?? job.call.ambientC;
}

/**
 * The coldest that its batteries have been, as far as is known: now, as noted of the night, or when something was read of them. Ice does not
 * thaw with the air.
 */
export function coldestTempC(
  job: Pick<Job, 'scene' | 'call' | 'readings' | 'attempts' | 'thawedAt'>,
): number {
  const { readings, attempts, thawedAt = '' } = job;
  const read = [
    ...readings.flatMap(({ at, tempC }) => (at > thawedAt ? tempC : [])),
    ...attempts.flatMap(({ startedAt, tempC }) => (startedAt > thawedAt ? (tempC ?? []) : [])),
  ];
  return coldestOf(Math.min(workingTempC(job), ...read), job.scene?.coldestC);
}

/** Returns the clamps and engines of now. */
export function circumstancesOf(job: Pick<Job, 'hookup' | 'attempts'>): Circumstances {
  const { clamps, donorRunning, packOn, pluggedIn } = job.hookup;
  return {
    clamps,
    donorRunning,
    packOn,
    pluggedIn,
    casualtyRunning: engineRuns(job),
    cranking: runningAttempt(job) !== null,
  };
}

/** True when a clamp was on: the figure shows the helper too. */
export function wasHelped({ clamps }: Circumstances): boolean {
  return anyClampOn({ ...NOTHING_CONNECTED, clamps });
}

/** The rules that a job is worked by: its own, or for an older log those of the house now. */
export function rulesOfJob(job: Pick<Job, 'rules'>, house: HouseRules): HouseRules {
  return job.rules ?? house;
}

/** The verdict that stands: of the last recheck, or as it was given. */
export function currentVerdict(job: Pick<Job, 'verdict' | 'recheck'>): VerdictRecord | null {
  return job.recheck?.verdict ?? job.verdict;
}

/** Other vans that are at this job, by id. */
export const vansHere = ({ vans = [] }: Pick<Job, 'vans'>): readonly string[] =>
  vans.flatMap(({ vanId, arrivedAt }) => (arrivedAt === null ? [] : [vanId]));

/** Another van that was asked and is on its way, with when it is due. */
export interface VanComing {
  readonly vanId: string;
  readonly calledAt: string;
  readonly dueAt: string;
}

/** Other vans that are on their way to this job, in the order they were asked. */
export const vansComing = ({ vans = [] }: Pick<Job, 'vans'>): readonly VanComing[] =>
  vans.flatMap(({ vanId, calledAt, minutes, arrivedAt }) =>
    arrivedAt !== null || calledAt === null || minutes === null
      ? []
      : [{ vanId, calledAt, dueAt: new Date(Date.parse(calledAt) + minutes * MINUTE_MS).toISOString() }],
  );
