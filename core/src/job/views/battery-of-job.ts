import { socFromRestVolts } from '../../battery/index.js';
import type { Machine } from '../../machine/index.js';
import { strengthFromCrank } from '../../trace/index.js';
import { withoutDoubts } from './doubts.js';
import type { Job } from '../job.js';
import { machineAsFound, wasHelped } from './queries.js';

export const BATTERY_ENTRIES = ['rest', 'strength', 'jump', 'replaced'] as const;

/** One thing that a job learnt of a battery, or did to it. */
export interface BatteryEntry {
  readonly jobId: string;
  readonly at: string;
  readonly battery: number;
  readonly kind: (typeof BATTERY_ENTRIES)[number];
  /** At rest; null for the other kinds. */
  readonly volts: number | null;
  /** Share of its rating, and the spread of that; null for the other kinds. */
  readonly share: number | null;
  readonly spread: number | null;
}

/** Spread of a tester's share, and of one worked out from a crank's lowest volts alone. */
const TESTER_SPREAD = 0.05;
const CRANK_SPREAD = 0.12;
/** Seconds of a crank that a lowest figure stands for. */
const CRANK_SECONDS = 2;
/** Flatter than this, the model of a crank says more of the charge than of the battery. */
const CRANK_LEAST_SOC = 0.5;

/** Returns the entries of a job in the record of its machine's batteries, oldest first. */
export function batteryEntries(recorded: Job, entryOf: Machine): BatteryEntry[] {
  const machine = machineAsFound(recorded, entryOf);
  const job = withoutDoubts(recorded, machine);
  const entry = (
    at: string,
    battery: number,
    kind: BatteryEntry['kind'],
    more: Partial<Pick<BatteryEntry, 'volts' | 'share' | 'spread'>> = {},
  ): BatteryEntry => ({ jobId: job.id, at, battery, kind, volts: null, share: null, spread: null, ...more });
  const rest = job.readings
    .filter((r) => r.kind === 'rest' && !wasHelped(r.during))
    .map((r) => entry(r.at, r.battery, 'rest', { volts: r.volts }));
  const tested = job.figures
    .filter((f) => f.check === 'conductance' && typeof f.found === 'number' && !wasHelped(f.during))
    .map((f) => entry(f.at, f.battery ?? 0, 'strength', { share: f.found as number, spread: TESTER_SPREAD }));
  const jumps = job.attempts
    .filter((a) => a.helped && a.outcome === 'started')
    .flatMap((a) => machine.batteries.map((_, battery) => entry(a.endedAt!, battery, 'jump')));
  const replaced = job.replaced.flatMap(({ at, battery }) =>
    machine.batteries.flatMap((_, i) =>
      battery === null || battery === i ? [entry(at, i, 'replaced')] : [],
    ),
  );
  return [
    ...rest,
    ...tested,
    ...recheckEntries(job, entry),
    ...crankStrengths(job, machine, entry),
    ...jumps,
    ...replaced,
  ].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

/** The readings of a recheck. */
function recheckEntries(
  { recheck }: Job,
  entry: (
    at: string,
    battery: number,
    kind: 'rest' | 'strength',
    more: Partial<Pick<BatteryEntry, 'volts' | 'share' | 'spread'>>,
  ) => BatteryEntry,
): BatteryEntry[] {
  if (!recheck) return [];
  const { at, restVolts, tested } = recheck;
  return [
    ...restVolts.map((volts, i) => entry(at, i, 'rest', { volts })),
    ...tested.flatMap((share, i) =>
      share === null ? [] : [entry(at, i, 'strength', { share, spread: TESTER_SPREAD })],
    ),
  ];
}

function crankStrengths(
  job: Job,
  machine: Machine,
  entry: (
    at: string,
    battery: number,
    kind: 'strength',
    more: Pick<BatteryEntry, 'share' | 'spread'>,
  ) => BatteryEntry,
): BatteryEntry[] {
  const { engine } = machine;
  if (!engine) return [];
  return job.readings.flatMap((reading) => {
    if (reading.kind !== 'crank-minimum' || wasHelped(reading.during)) return [];
    const { strength, at, volts, tempC } = reading;
    if (strength)
      return [
        entry(at, 0, 'strength', { share: strength.share, spread: (strength.high - strength.low) / 2 }),
      ];
    const rest = machine.batteries.map(
      (_, i) => job.readings.filter((r) => r.kind === 'rest' && r.battery === i && r.at <= at).at(-1)?.volts,
    );
    if (rest.some((v) => v === undefined)) return [];
    const { rating } = machine.batteries[0]!;
    const sum = rest.reduce<number>((a, b) => a + b!, 0);
    if (socFromRestVolts(rating.chemistry, sum / rest.length, tempC).soc < CRANK_LEAST_SOC) return [];
    const crank = { fromSeconds: 0, toSeconds: CRANK_SECONDS, meanVolts: volts, meanAmps: null };
    const found = strengthFromCrank(crank, sum, rating, engine, tempC);
    return found ? [entry(at, 0, 'strength', { share: Math.min(1, found.share), spread: CRANK_SPREAD })] : [];
  });
}
