import {
  isFindingOf,
  isWhole,
  needsStandstill,
  POLARITY_SIGNS_NEEDED,
  type StopCondition,
} from '../diagnosis/index.js';
import { CLAMP_IDS, type ClampId, isSourceClamp } from '../circuit/index.js';
import { anyClampOn, clampsInHand, clampsOn, SPARE_POSTS, stands } from '../hookup/index.js';
import { type Machine, rollingStart, takesClamp } from '../machine/index.js';
import { outOfRange, TYPED_RANGES } from '../quantities/index.js';
import { LEAST_GAP_MM, nothingOpens } from '../reach/index.js';
import { type HouseRules, ruleFault } from '../rules/index.js';
import type { KitItem } from '../sources/index.js';
import type { FollowUp } from '../verdict/index.js';
import { foldJob, lastUndoable, timeOf } from './apply.js';
import type { JobEvent, PlanRecord, Recheck } from './events.js';
import { mustComeOff, underCharge } from './charge-of-job.js';
import type { Job } from './job.js';
import {
  engineRuns,
  isHookupWhole,
  isPolarityProved,
  rulesOfJob,
  runningAttempt,
  standingVerdict,
} from './queries.js';
import { isOverridden, restSecondsLeft } from './rest-owed.js';
import { stopsInForce } from './situation.js';

/** Why a job's state does not allow an event. The screens and the server have words for each. */
export const REFUSALS = [
  'not-open',
  'already-open',
  'job-closed',
  'stop-active',
  'polarity-unproved',
  'no-plan',
  'plan-in-use',
  'clamp-already-on',
  'clamp-already-off',
  'clamps-unfinished',
  'pack-still-on',
  'pack-already-so',
  'still-plugged-in',
  'plug-already-so',
  'circumstance-already-so',
  'charger-on',
  'donor-already-so',
  'clamps-still-on',
  'attempt-running',
  'no-attempt-running',
  'cannot-roll',
  'tries-spent',
  'rest-first',
  'already-running',
  'stop-not-raised',
  'value-out-of-range',
  'reason-missing',
  'no-verdict',
  'cannot-undo',
  'machine-in-use',
  'vehicles-touch',
  'not-promised',
  'already-followed-up',
  'no-such-reading',
  'no-such-finding',
  'already-fitted',
  'no-such-battery',
  'no-such-point',
  'not-in-hand',
  'not-in-kit',
  'nothing-on-charge',
  'leads-not-joined',
  'latch-not-to-try',
  'van-already-called',
  'van-already-here',
] as const;
export type Refusal = (typeof REFUSALS)[number];

/** Everything beside the log that decides what may be appended to it. */
export interface Surroundings {
  /** The model that the job's vehicle is. */
  readonly machine: Machine;
  /** The donor's model; null when no vehicle lends. */
  readonly donor: Machine | null;
  /** The kit of the van. */
  readonly kit: readonly KitItem[];
  /** The rules of the house now; a job is worked by its own. */
  readonly rules: HouseRules;
  /** The event that an undo may name; looked at for an undo alone. */
  readonly undoable: () => JobEvent | null;
}

/**
 * Whether a job allows one more event. The one door: server, screens and command line ask here and nowhere else, and what is let in can
 * always be folded, solved and made safe.
 *
 * @returns the reason it does not, or null
 */
export function refusalOf(job: Job | null, next: JobEvent, around: Surroundings): Refusal | null {
  if (next.type === 'job.opened') return job ? 'already-open' : null;
  if (!job) return 'not-open';
  if (next.type === 'follow-up.done') return refuseFollowUp(job, next.data.kind);
  if (next.type === 'recheck.taken') return refuseRecheck(job, next.data, around.machine);
  if (job.closedAt !== null) return 'job-closed';
  // Undo needs no other check: the state before the last event was allowed by the rules in force then.
  if (next.type === 'event.undone') return around.undoable()?.id === next.data.eventId ? null : 'cannot-undo';
  return refuseOn(job, next, around);
}

/** The same over a whole log. */
export function refusalInLog(
  log: readonly JobEvent[],
  next: JobEvent,
  around: Omit<Surroundings, 'undoable'>,
): Refusal | null {
  return refusalOf(foldJob(log), next, { ...around, undoable: () => lastUndoable(log) });
}

function refuseOn(
  job: Job,
  next: Exclude<JobEvent, { type: 'job.opened' | 'event.undone' | 'follow-up.done' | 'recheck.taken' }>,
  around: Surroundings,
): Refusal | null {
  const { hookup } = job;
  const { machine, kit } = around;
  const rules = rulesOfJob(job, around.rules);
  switch (next.type) {
    case 'stop.raised':
    case 'symptom.recorded':
    case 'reset.ticked':
    case 'job.supervised':
      return null;
    case 'scene.recorded':
      return outOfRange('', next.data.ambientC, TYPED_RANGES.ambientC) ? 'value-out-of-range' : null;
    case 'stop.withdrawn':
      // Beside what was raised only ice that a reading shows ends by word: once it has thawed.
      if (!job.stops.includes(next.data.stop) && !isIceInForce(job, machine, next.data.stop))
        return 'stop-not-raised';
      return next.data.reason.trim() ? null : 'reason-missing';
    case 'override.given':
      return next.data.reason.trim() ? null : 'reason-missing';
    case 'finding.recorded':
      return isFindingOf(next.data.check, next.data.found) ? null : 'value-out-of-range';
    case 'finding.withdrawn':
      return job.findings[next.data.check] === undefined ? 'no-such-finding' : null;
    case 'repair.made':
      if (!isWhole(next.data)) return 'value-out-of-range';
      if (isStopped(job, machine)) return 'stop-active';
      if (runningAttempt(job)) return 'attempt-running';
      return needsStandstill(next.data) && anyClampOn(hookup) ? 'clamps-still-on' : null;
    case 'model.identified':
      return anyClampOn(hookup) ? 'machine-in-use' : null;
    case 'donor.parked':
      if (anyClampOn(hookup)) return 'plan-in-use';
      return next.data.gapMm < LEAST_GAP_MM ? 'vehicles-touch' : null;
    case 'polarity.proved':
      return new Set(next.data.signs).size < POLARITY_SIGNS_NEEDED ? 'polarity-unproved' : null;
    case 'reading.taken': {
      const charging = next.data.kind === 'charging-idle' || next.data.kind === 'charging-loaded';
      const range = charging ? TYPED_RANGES.chargingVolts : TYPED_RANGES.volts;
      if (!hasBattery(machine, next.data.battery)) return 'no-such-battery';
      return outOfRange('', next.data.volts, range) ? 'value-out-of-range' : null;
    }
    case 'latch.tried': {
      const ways = nothingOpens(machine, kit, job.latches ?? []);
      return ways === null || ways.opened || !ways.places.includes(next.data.place)
        ? 'latch-not-to-try'
        : null;
    }
    case 'van.called':
      if (outOfRange('', next.data.minutes, TYPED_RANGES.fetchMinutes)) return 'value-out-of-range';
      return job.vans?.some((v) => v.vanId === next.data.vanId) ? 'van-already-called' : null;
    case 'van.arrived':
      return job.vans?.some((v) => v.vanId === next.data.vanId && v.arrivedAt !== null)
        ? 'van-already-here'
        : null;
    case 'battery.lifted':
      if (isStopped(job, machine)) return 'stop-active';
      if (anyClampOn(hookup)) return 'clamps-still-on';
      return hasBattery(machine, next.data.battery) ? null : 'no-such-battery';
    case 'charge.read':
      if (!underCharge(job)) return 'nothing-on-charge';
      return outOfRange('', next.data.volts, TYPED_RANGES.chargingVolts) ||
        outOfRange('', next.data.amps, TYPED_RANGES.chargeAmps)
        ? 'value-out-of-range'
        : null;
    case 'leads.measured': {
      const { sourceVolts, casualtyVolts, amps } = next.data;
      if (!job.plan?.leadSetId || clampsOn(hookup).length < CLAMP_IDS.length) return 'leads-not-joined';
      const isOut =
        outOfRange('', sourceVolts, TYPED_RANGES.chargingVolts) ??
        outOfRange('', casualtyVolts, TYPED_RANGES.chargingVolts) ??
        outOfRange('', amps, TYPED_RANGES.leadAmps);
      return isOut !== null || sourceVolts <= casualtyVolts ? 'value-out-of-range' : null;
    }
    case 'reading.withdrawn':
      return job.readings.some((r) => r.eventId === next.data.readingId) ? null : 'no-such-reading';
    case 'fitting.confirmed':
      if (anyClampOn(hookup)) return 'clamps-still-on';
      if (!hasBattery(machine, next.data.battery)) return 'no-such-battery';
      return job.fitting.some((f) => f.battery === next.data.battery && f.step === next.data.step)
        ? 'already-fitted'
        : null;
    case 'battery.replaced':
      if (anyClampOn(hookup)) return 'clamps-still-on';
      if (!hasBattery(machine, next.data.battery)) return 'no-such-battery';
      return job.replaced.some((r) => r.battery === next.data.battery) ? 'already-fitted' : null;
    case 'plan.chosen': {
      if (anyClampOn(hookup)) return 'plan-in-use';
      const { sourceId, sourceKind, leadSetId } = next.data;
      const has = (id: string, kind: KitItem['kind']): boolean =>
        kit.some((k) => k.id === id && k.kind === kind);
      return has(sourceId, sourceKind) && (leadSetId === null || has(leadSetId, 'lead-set'))
        ? null
        : 'not-in-kit';
    }
    case 'step.confirmed':
      return job.plan ? null : 'no-plan';
    case 'clamp.attached':
      if (isStopped(job, machine)) return 'stop-active';
      if (!job.plan) return 'no-plan';
      if (!isPolarityProved(job)) return 'polarity-unproved';
      if (runningAttempt(job)) return 'attempt-running';
      if (hookup.clamps[next.data.clamp] !== null) return 'clamp-already-on';
      return refusePlace(job.plan, next.data.clamp, next.data.pointId, around);
    case 'clamp.detached':
      if (hookup.clamps[next.data.clamp] === null) return 'clamp-already-off';
      if (hookup.pluggedIn) return 'still-plugged-in';
      return hookup.packOn ? 'pack-still-on' : null;
    case 'donor.switched':
      if (next.data.running && isStopped(job, machine)) return 'stop-active';
      return hookup.donorRunning === next.data.running ? 'donor-already-so' : null;
    case 'pack.switched':
      if (next.data.on && isStopped(job, machine)) return 'stop-active';
      return hookup.packOn === next.data.on ? 'pack-already-so' : null;
    case 'plug.moved':
      if (next.data.in && isStopped(job, machine)) return 'stop-active';
      return hookup.pluggedIn === next.data.in ? 'plug-already-so' : null;
    case 'circumstance.noted':
      return stands(hookup, next.data.what) === next.data.on ? 'circumstance-already-so' : null;
    case 'attempt.started':
      return isStopped(job, machine) ? 'stop-active' : refusalOfTry(job, timeOf(next), rules);
    case 'attempt.ended':
      return runningAttempt(job) ? null : 'no-attempt-running';
    case 'roll.tried':
      if (isStopped(job, machine)) return 'stop-active';
      if (anyClampOn(hookup)) return 'clamps-still-on';
      if (runningAttempt(job)) return 'attempt-running';
      if (engineRuns(job)) return 'already-running';
      return rollingStart(machine, ANYWHERE).allowed ? null : 'cannot-roll';
    case 'rules.adopted':
      return Object.entries(next.data.rules).some(([key, value]) => ruleFault(key, value) !== null)
        ? 'value-out-of-range'
        : null;
    case 'verdict.given':
      return runningAttempt(job) ? 'attempt-running' : null;
    case 'job.closed':
      if (anyClampOn(hookup)) return 'clamps-still-on';
      if (runningAttempt(job)) return 'attempt-running';
      return job.verdict ? null : 'no-verdict';
  }
}

/** Only what the verdict promised can be done, once, and after the job is closed. */
function refuseFollowUp(job: Job, kind: FollowUp['kind']): Refusal | null {
  const isPromised = standingVerdict(job)?.followUps.some((f) => f.kind === kind) ?? false;
  if (job.closedAt === null || !isPromised) return 'not-promised';
  return job.followedUp.includes(kind) ? 'already-followed-up' : null;
}

/** A recheck reads every battery, each within what a meter can show. */
function refuseRecheck(job: Job, { restVolts, tested, tempC }: Recheck, machine: Machine): Refusal | null {
  const promised = refuseFollowUp(job, 'recheck');
  if (promised) return promised;
  const count = machine.batteries.length;
  if (restVolts.length !== count || tested.length !== count) return 'no-such-battery';
  const isOff =
    restVolts.some((volts) => outOfRange('', volts, TYPED_RANGES.volts)) ||
    outOfRange('', tempC, TYPED_RANGES.ambientC);
  return isOff ? 'value-out-of-range' : null;
}

/** Why nobody cranks at the moment `at`, where no stop is in force; null when a try may begin. */
export function refusalOfTry(job: Job, at: string, rules: HouseRules): Refusal | null {
  if (runningAttempt(job)) return 'attempt-running';
  if (engineRuns(job)) return 'already-running';
  if (mustComeOff(job)) return 'charger-on';
  if (!isHookupWhole(job)) return 'clamps-unfinished';
  if (job.triesSinceChecks >= rules.crankTriesMax && !isOverridden(job, 'crankTriesMax'))
    return 'tries-spent';
  return restSecondsLeft(job, at, rules) > 0 ? 'rest-first' : null;
}

/** The machine alone bars rolling here: a scene that does may have been left since. */
const ANYWHERE = { sloping: true, ontoRoad: false, restVolts: null };

const isIceInForce = (job: Job, machine: Machine, stop: StopCondition): boolean =>
  stop === 'frozen' && stopsInForce(job, machine).includes(stop);

/** A stop is in force: one that was raised, or a battery that may take no current. */
const isStopped = (job: Job, machine: Machine): boolean => stopsInForce(job, machine).length > 0;

const hasBattery = (machine: Machine, battery: number): boolean => battery < machine.batteries.length;

/** A clamp goes on what the atlas knows at its end, and only a clamp that is in hand. */
function refusePlace(
  plan: PlanRecord,
  clamp: ClampId,
  pointId: string,
  { machine, donor }: Surroundings,
): Refusal | null {
  if (!clampsInHand({ leadSetId: plan.leadSetId }).includes(clamp)) return 'not-in-hand';
  if (isSourceClamp(clamp) && plan.sourceKind !== 'donor')
    return Object.values<string>(SPARE_POSTS).includes(pointId) ? null : 'no-such-point';
  const point = (isSourceClamp(clamp) ? donor : machine)?.points.find((p) => p.id === pointId);
  return point && takesClamp(point.kind) ? null : 'no-such-point';
}
