import { isLeadAcid, restVoltsAt } from '../../battery/index.js';
import { SURFACE_CHARGE_VOLTS } from '../../diagnosis/index.js';
import { type Machine, startsByWaking } from '../../machine/index.js';
import { CHARGING_VOLTS } from '../../trace/index.js';
import type { Job, Reading } from '../job.js';
import { restVoltsNow } from './queries.js';

export const DOUBTS = [
  'charging-but-still',
  'above-rest',
  'rest-moved',
  'too-soon',
  'surface-charge',
] as const;
/** Why a reading contradicts what else the log says. */
export type Doubt = (typeof DOUBTS)[number];

/** Readings of one thing taken one after the other lie within this, V per battery. */
const ALIKE_VOLTS = 0.1;
/** A battery at rest does not move further than this by itself, V. */
const REST_MOVE_VOLTS = 0.3;
/** Surface charge of a run stays about this long, min. */
const SURFACE_MINUTES = 60;
/** Main beam for two minutes and one of rest take it off, min. */
const BURN_OFF_MINUTES = 3;
const METER_VOLTS = 0.05;

const minutesBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;

/** The part of a job that doubts rest on. */
type JobRecord = Pick<Job, 'readings' | 'attempts' | 'everConnected' | 'plan' | 'lifts'>;

/**
 * A reading that contradicts the log is asked for again and stands only when a second one says the same. What contradicts is held against
 * readings that stand: a doubted one makes no other doubtful. Null when it stands.
 */
export function doubtOf(job: JobRecord, machine: Machine, reading: Reading): Doubt | null {
  return doubtsOf(job, machine)[job.readings.indexOf(reading)] ?? null;
}

/** The doubt on each reading, in their order. */
function doubtsOf(job: JobRecord, machine: Machine): (Doubt | null)[] {
  const accepted: Reading[] = [];
  return job.readings.map((reading) => {
    const found = contradictionOf(job, accepted, machine, reading);
    const doubt = found && !isConfirmed(job, machine, reading, found) ? found : null;
    if (!doubt) accepted.push(reading);
    return doubt;
  });
}

function isConfirmed({ readings }: JobRecord, machine: Machine, reading: Reading, doubt: Doubt): boolean {
  const apart = doubt === 'too-soon' || doubt === 'surface-charge' ? BURN_OFF_MINUTES : 0;
  return readings.some(
    (r) =>
      r !== reading &&
      r.kind === reading.kind &&
      r.battery === reading.battery &&
      Math.abs(r.volts - reading.volts) <= (ALIKE_VOLTS * machine.systemVolts) / 12 &&
      Math.abs(minutesBetween(r.at, reading.at)) >= apart,
  );
}

/** @param earlier readings before it that stand */
function contradictionOf(
  job: JobRecord,
  earlier: readonly Reading[],
  machine: Machine,
  reading: Reading,
): Doubt | null {
  const per12 = machine.systemVolts / 12;
  const ran = job.attempts.filter((a) => a.outcome === 'started' && (a.endedAt ?? '') <= reading.at).at(-1);
  switch (reading.kind) {
    case 'charging-idle':
    case 'charging-loaded':
      return !ran &&
        !reading.during.casualtyRunning &&
        !startsByWaking(machine) &&
        reading.volts >= CHARGING_VOLTS * per12
        ? 'charging-but-still'
        : null;
    case 'crank-minimum': {
      const rest = machine.batteries.map(
        (_, i) => earlier.filter((r) => r.kind === 'rest' && r.battery === i).at(-1)?.volts,
      );
      const sum = rest.every((v) => v !== undefined) ? rest.reduce((a, b) => a + b, 0) : null;
      return sum !== null && reading.volts > sum + METER_VOLTS ? 'above-rest' : null;
    }
    case 'rest': {
      const { chemistry } = machine.batteries[reading.battery]?.rating ?? machine.batteries[0]!.rating;
      const isHigh =
        isLeadAcid(chemistry) &&
        reading.volts > restVoltsAt(chemistry, 1, reading.tempC) + SURFACE_CHARGE_VOLTS;
      // It was found running, and nothing tells that it was stopped.
      if (!ran && reading.during.casualtyRunning) return 'too-soon';
      if (ran && minutesBetween(ran.endedAt!, reading.at) < SURFACE_MINUTES) return 'too-soon';
      if (isHigh) return 'surface-charge';
      const before = earlier.filter((r) => r.kind === 'rest' && r.battery === reading.battery).at(-1);
      const isLifted = job.lifts.some(
        ({ battery, at }) => battery === reading.battery && at >= (before?.at ?? '') && at <= reading.at,
      );
      const isDisturbed = job.attempts.length > 0 || job.everConnected || isLifted;
      return before && !isDisturbed && Math.abs(before.volts - reading.volts) > REST_MOVE_VOLTS
        ? 'rest-moved'
        : null;
    }
  }
}

/** Returns the rest volts of the batteries that are in it now, of readings that stand alone; null where none does. */
export function currentRestVolts(job: Job, machine: Machine): (number | null)[] {
  return restVoltsNow(withoutDoubts(job, machine), machine.batteries.length);
}

/** The job with only the readings that stand: what is in doubt is asked again, never averaged in. */
export function withoutDoubts(job: Job, machine: Machine): Job {
  const doubts = doubtsOf(job, machine);
  return { ...job, readings: job.readings.filter((_, i) => doubts[i] === null) };
}
