import { restVoltsAt, strengthShare } from '@voltrek/core/battery';
import { crankPoint } from '@voltrek/core/crank';
import { type Crowd, drawCrowd } from '@voltrek/core/diagnosis';
import { hookupOrder, clearingOrder } from '@voltrek/core/hookup';
import {
  caseOfJob,
  evidenceOfJob,
  type EventData,
  type Job,
  type JobEvent,
  planRecord,
  profileOfJob,
  toolsOfKit,
} from '@voltrek/core/job';
import { type Machine, startsByWaking } from '@voltrek/core/machine';
import { casualtyBatteries } from '@voltrek/core/belief';
import { connectedRescue, rankOptions } from '@voltrek/core/plan';
import { drawWeighted, normal, type Random, seededRandom } from '@voltrek/core/quantities';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import type { KitItem } from '@voltrek/core/sources';
import { conclude } from '@voltrek/core/verdict';
import { type DemoVehicle, uuidFrom } from './fleet.js';
import { type JobLog, jobLog } from './job-log.js';
import { DAY_MS } from '@voltrek/core/quantities';

/** A past call with its whole log. */
export interface PastJob {
  readonly call: {
    readonly id: string;
    readonly number: number;
    readonly receivedAt: Date;
    readonly title: string;
    readonly placeName: string;
    readonly said: string;
    readonly modelId: string;
    readonly vehicleId: string;
    readonly callerId: string;
    readonly vanId: string;
    readonly ambientC: number;
    readonly urgent: boolean;
  };
  readonly events: readonly JobEvent[];
}

const SEED = 1907;
const PAST_JOBS = 140;
/** Share of follow-ups that the crew has done. */
const KEPT_PROMISES = 0.88;
/** Days before the demo night that the two winters reach back: this winter's start, and all of the last. */
const WINTERS = [
  { from: 2, to: 75 },
  { from: 290, to: 430 },
] as const;
const PLACES = [
  'Station yard',
  'Mill lane',
  'Top pasture',
  'Chapel hall yard',
  'Fish quay',
  'Verge above the weir',
  'Depot row',
  'Slip road lay-by',
];

/** The true fault; the log then shows it as it would have been found. */
type Truth = 'discharged' | 'worn' | 'not-charging' | 'joint' | 'no-fuel';
const TRUTHS: readonly (readonly [Truth, number])[] = [
  ['discharged', 0.55],
  ['worn', 0.2],
  ['not-charging', 0.12],
  ['joint', 0.07],
  ['no-fuel', 0.06],
];

/**
 * Two winters of past jobs, made with the electrical model from hidden faults. The same for the same `now`.
 *
 * @param now the demo night; every date counts back from it
 */
export function pastJobs(
  machines: readonly Machine[],
  fleet: readonly DemoVehicle[],
  vans: readonly { readonly id: string; readonly kit: readonly KitItem[] }[],
  donor: Machine,
  crewIds: readonly string[],
  now: Date,
): PastJob[] {
  const random = seededRandom(SEED);
  const dates = Array.from({ length: PAST_JOBS }, () => {
    const winter = WINTERS[random() < 0.4 ? 0 : 1];
    const days = winter.from + random() * (winter.to - winter.from);
    return new Date(now.getTime() - days * DAY_MS);
  }).sort((a, b) => a.getTime() - b.getTime());
  const byId = new Map(machines.map((m) => [m.id, m]));
  return dates.map((date, i) => {
    const vehicle = pick(random, fleet);
    const machine = byId.get(vehicle.modelId)!;
    const van = pick(random, vans);
    return pastJob(random, i + 1, date, machine, vehicle, van, donor, pick(random, crewIds), now);
  });
}

function pick<T>(random: Random, list: readonly T[]): T {
  return list[Math.floor(random() * list.length)]!;
}

function pastJob(
  random: Random,
  number: number,
  date: Date,
  machine: Machine,
  vehicle: DemoVehicle,
  { id: vanId, kit }: { readonly id: string; readonly kit: readonly KitItem[] },
  donor: Machine,
  by: string,
  now: Date,
): PastJob {
  const ambientC = Math.round(normal(random, -2, 4));
  const truth = startsByWaking(machine) ? 'discharged' : drawWeighted(random, TRUTHS);
  const call = {
    id: `call-${number}`,
    number,
    receivedAt: date,
    title: `${machine.maker} ${machine.model}`,
    placeName: pick(random, PLACES),
    said: truth === 'no-fuel' ? 'Turns well, will not fire.' : 'Will not start.',
    modelId: machine.id,
    vehicleId: vehicle.id,
    callerId: vehicle.ownerId,
    vanId,
    ambientC,
    urgent: false,
  };
  const log = jobLog(random, call, by, date);
  log.add('scene.recorded', {
    ambientC,
    place: 'yard',
    sloping: false,
    dark: true,
    enclosed: false,
    mainsNear: false,
  });
  log.add('symptom.recorded', {
    symptom: truth === 'no-fuel' ? 'brisk-no-fire' : startsByWaking(machine) ? 'no-doors' : 'slow-crank',
  });
  log.add('finding.recorded', { check: 'case', found: 'clear' });
  log.add('finding.recorded', { check: 'look-joints', found: truth === 'joint' ? 'deposits' : 'clean' });
  const restVolts = restReadings(random, machine, truth, ambientC);
  restVolts.forEach((volts, battery) =>
    log.add('reading.taken', { kind: 'rest', volts, battery, tempC: ambientC, source: 'typed' }),
  );
  if (random() < TESTED)
    testBattery(random, log, vehicle.id, machine, truth, (now.getTime() - date.getTime()) / DAY_MS);
  log.add('polarity.proved', { signs: ['mark', 'meter'] });
  work(random, log, machine, donor, kit, restVolts, ambientC, truth);
  const job = log.job();
  const verdict = conclude(
    crowdOf(machine, job),
    evidenceOfJob(job, machine, 0),
    caseOfJob(job, machine, 0),
    toolsOfKit(kit),
    DEFAULT_RULES,
  );
  log.add('verdict.given', verdict);
  log.add('job.closed', { note: '' });
  for (const { kind, days } of verdict.followUps) {
    // A follow-up that is due later tonight, or forgotten, is still open.
    const doneAt = date.getTime() + (days + 1) * DAY_MS;
    if (doneAt < now.getTime() && random() < KEPT_PROMISES) {
      log.waitUntil(doneAt);
      log.add('follow-up.done', { kind });
    }
  }
  return { call, events: log.events };
}

/** Machines per cause that a past verdict is weighed against: fewer than on screen, since there are many verdicts to give. */
const CROWD_PER_CAUSE = 8;
/** The cold is rounded to this, so that one crowd serves several jobs, degC. */
const CROWD_STEP_C = 6;
const crowds = new Map<string, Crowd>();

function crowdOf(machine: Machine, job: Job): Crowd {
  const profile = profileOfJob(job, machine);
  const tempC = Math.round(profile.tempC / CROWD_STEP_C) * CROWD_STEP_C;
  const key = `${machine.id} ${tempC}`;
  const known = crowds.get(key) ?? drawCrowd({ ...profile, tempC }, seededRandom(SEED), CROWD_PER_CAUSE);
  crowds.set(key, known);
  return known;
}

/** Share of jobs on which the tester came out. */
const TESTED = 0.6;

/** A tester's figure: each vehicle's battery ages at a pace of its own, and a worn one is worn. */
function testBattery(
  random: Random,
  log: JobLog,
  vehicleId: string,
  machine: Machine,
  truth: Truth,
  daysAgo: number,
): void {
  const pace = seededRandom(Number.parseInt(uuidFrom(vehicleId).slice(0, 6), 16));
  const ageAtDemo = 1.15 + 1.1 * pace();
  const perDay = 0.0004 + 0.0012 * pace();
  const ageing = Math.max(1, ageAtDemo - perDay * daysAgo) * (truth === 'worn' ? 2.2 : 1);
  const found = Math.round((strengthShare(ageing) + normal(random, 0, 0.025)) * 100) / 100;
  const { ccaAmps } = machine.batteries[0]!.rating;
  log.add('finding.recorded', {
    check: 'conductance',
    found: Math.min(1, found),
    source: 'typed',
    figures: [Math.round(found * ccaAmps)],
  });
}

/** The rest volts a meter would have shown, to a hundredth. */
function restReadings(random: Random, machine: Machine, truth: Truth, ambientC: number): number[] {
  const low = truth === 'discharged' || truth === 'not-charging';
  return machine.batteries.map((battery, i) => {
    const soc = low && i === machine.batteries.length - 1 ? 0.05 + 0.4 * random() : 0.78 + 0.2 * random();
    const volts = restVoltsAt(battery.rating.chemistry, soc, ambientC) + normal(random, 0, 0.01);
    return Math.round(volts * 100) / 100;
  });
}

/** Connects the best source that fits, tries, clears down, and reads the charging voltage. */
function work(
  random: Random,
  log: JobLog,
  machine: Machine,
  donor: Machine,
  kit: readonly KitItem[],
  restVolts: readonly number[],
  tempC: number,
  truth: Truth,
): void {
  const batteries = casualtyBatteries(machine, restVolts, tempC);
  if (truth === 'worn' && machine.engine) {
    // A worn battery rests well and collapses: three times the resistance of a new one.
    const weak = { ...batteries, models: batteries.models.map((m) => ({ ...m, ohms: m.ohms * 3 })) };
    const alone = crankPoint(connectedRescue(machine, null, weak, tempC, DEFAULT_RULES), machine.engine);
    tryOnce(log, 'slow', Math.round(alone.postVolts * 100) / 100);
    log.wait(2);
  }
  if (truth === 'no-fuel') {
    tryOnce(log, 'brisk-no-fire', null);
    return;
  }
  const best = rankOptions(machine, kit, batteries, tempC, DEFAULT_RULES).find((o) => !o.unfit);
  const plan = best && planRecord(best);
  if (!best || !plan) return;
  log.add('plan.chosen', plan);
  const order = hookupOrder(machine, donor, best.option, plan.waitMinutes, DEFAULT_RULES);
  order.forEach((step) => log.act(step.action, step.minutes ?? 0.5));
  const starts =
    best.outlook === 'cranks' || best.outlook === 'wakes' || (best.outlook === 'marginal' && random() < 0.6);
  const volts = best.crank?.postVolts ?? best.wake?.postVolts ?? null;
  tryOnce(log, starts ? 'started' : 'slow', volts === null ? null : Math.round(volts * 100) / 100);
  clearingOrder(order, machine, DEFAULT_RULES).forEach((step) => log.act(step.action, 0.5));
  if (!starts) return;
  const per12 = truth === 'not-charging' ? normal(random, 12.4, 0.2) : normal(random, 14.25, 0.15);
  const chargingVolts = (bump: number): number =>
    Math.round(((per12 + bump) * machine.systemVolts * 100) / 12) / 100;
  log.add('reading.taken', {
    kind: 'charging-idle',
    volts: chargingVolts(0),
    battery: 0,
    tempC,
    source: 'typed',
  });
  log.add('reading.taken', {
    kind: 'charging-loaded',
    volts: chargingVolts(-0.2),
    battery: 0,
    tempC,
    source: 'typed',
  });
}

function tryOnce(
  log: JobLog,
  outcome: EventData['attempt.ended']['outcome'],
  lowestVolts: number | null,
): void {
  log.add('attempt.started', {});
  log.add('attempt.ended', { outcome, seconds: outcome === 'started' ? 3 : 8, lowestVolts });
}
