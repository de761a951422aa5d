import { readTraceFile, type TraceFault, type TraceFile, TraceFileError } from '@voltrek/contracts';
import type { BatteryRating } from '@voltrek/core/battery';
import type { Engine } from '@voltrek/core/engine';
import {
  analyseTrace,
  type CrankStrength,
  type Recording,
  strengthOfTrace,
  type TraceFindings,
} from '@voltrek/core/trace';

/** The machine that a trace was taken on. */
export interface TraceOf {
  readonly systemVolts: 12 | 24;
  /** Null for a machine that wakes. */
  readonly engine: Engine | null;
  readonly rating: BatteryRating;
  readonly tempC: number;
}

/** A trace that has been read: what was found in it, and enough of it to draw. */
export interface TraceRead {
  readonly name: string;
  readonly rows: number;
  readonly findings: TraceFindings;
  readonly strength: CrankStrength | null;
  /** How the file was taken; null for a capture. */
  readonly file: Pick<TraceFile, 'timeUnit' | 'timeUnitFrom' | 'cutOff'> | null;
  /** Seconds and volts: in each stretch the lowest and the highest, so that no dip is lost. */
  readonly drawn: readonly (readonly [seconds: number, volts: number])[];
}

/** Why a file of a trace was not taken. An error loses its parts on the way out of a worker, so it is an answer. */
export interface TraceRefused {
  readonly fault: TraceFault;
  readonly line: number | null;
}

const DRAWN_STRETCHES = 500;
/** Reading takes most of the time, analysing the rest. */
const READ_SHARE = 0.85;

/** Reads a file or a capture of the meter; of a file that cannot be read it returns why. */
export async function readTrace(...given: Parameters<typeof traceOf>): Promise<TraceRead | TraceRefused> {
  try {
    return await traceOf(...given);
  } catch (error) {
    if (!(error instanceof TraceFileError)) throw error;
    return { fault: error.fault, line: error.line };
  }
}

async function traceOf(
  what: Blob | Recording,
  name: string,
  { systemVolts, engine, rating, tempC }: TraceOf,
  onProgress: (share: number) => void,
): Promise<TraceRead> {
  const file =
    what instanceof Blob ? readTraceFile(await what.text(), (share) => onProgress(share * READ_SHARE)) : null;
  const recording = file?.recording ?? (what as Recording);
  const findings = analyseTrace(recording, { systemVolts, cylinders: engine?.cylinders ?? null });
  return {
    name,
    rows: recording.seconds.length,
    findings,
    strength: strengthOfTrace(findings, rating, engine, tempC),
    file: file && { timeUnit: file.timeUnit, timeUnitFrom: file.timeUnitFrom, cutOff: file.cutOff },
    drawn: extremes(recording),
  };
}

function extremes({ seconds, volts }: Recording): [number, number][] {
  const width = Math.max(1, Math.ceil(seconds.length / DRAWN_STRETCHES));
  const first = seconds[0]!;
  const drawn: [number, number][] = [];
  for (let from = 0; from < seconds.length; from += width) {
    let low = from;
    let high = from;
    for (let i = from; i < Math.min(seconds.length, from + width); i++) {
      if (volts[i]! < volts[low]!) low = i;
      if (volts[i]! > volts[high]!) high = i;
    }
    for (const i of low < high ? [low, high] : low > high ? [high, low] : [low])
      drawn.push([seconds[i]! - first, volts[i]!]);
  }
  return drawn;
}
