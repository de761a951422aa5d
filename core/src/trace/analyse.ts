import { cleaned, MENDED } from './clean.js';
import { evened, type EvenRecording, gapsOf, type Recording, SLOWEST_STEP_S } from './recording.js';
import { rippleOf } from './ripple.js';
import { lowestOf, meanOf, medianOf, slopeOf, smoothed, type Stretch } from './series.js';

/** The facts of the machine that the analysis needs. */
export interface TraceSubject {
  readonly systemVolts: 12 | 24;
  /** Null for a machine that wakes: nothing turns. */
  readonly cylinders: number | null;
}

/** Why a figure is missing, or should be taken with care. */
export const TRACE_NOTES = [
  'too-coarse',
  'gap',
  'starts-in-crank',
  'ends-in-crank',
  'no-crank',
  'more-cranks',
  'no-ripple',
  'chatters',
  'clipped',
  ...MENDED,
] as const;
export type TraceNote = (typeof TRACE_NOTES)[number];

/** The crank in a recording. */
export interface RecordedCrank {
  readonly fromSeconds: number;
  readonly toSeconds: number;
  /** Lowest as the contact closes and nothing turns yet. */
  readonly inrushVolts: number;
  /** Lowest while it turns. */
  readonly minimumVolts: number;
  /** Once it turns steadily. */
  readonly meanVolts: number;
  readonly meanAmps: number | null;
  /** From the ripple of compression; null when none stands out. */
  readonly rpm: number | null;
  readonly unevenShare: number | null;
  /** The solenoid drops in and out this many times a second and nothing turns; null while it holds. */
  readonly chatterPerSecond: number | null;
  /** Fall of volts by amps over the crank: resistance of the whole string that is there at once; null without amps. */
  readonly ohms: number | null;
}

/** The findings in a recording. Volts at the posts of the whole string. */
export interface TraceFindings {
  readonly durationSeconds: number;
  readonly stepSeconds: number;
  /** Null when the recording starts in the crank. */
  readonly restVolts: number | null;
  /** Fall at key-on before the crank; 0 when the key was on already, or nothing fell. */
  readonly keyOnDropVolts: number | null;
  readonly crank: RecordedCrank | null;
  /** After a crank that did not start it: volts, and how long after. */
  readonly recovery: { readonly volts: number; readonly afterSeconds: number } | null;
  /** When the charging came in, and where it settled. */
  readonly charging: { readonly atSeconds: number; readonly volts: number } | null;
  readonly notes: readonly TraceNote[];
}

/** Falls slower than this are no contact: key-on, recovery and charging take longer, s. */
const SLOW_SECONDS = 0.05;
/** At both edges of a crank the volts jump: this much is kept out of its means, s. */
const EDGE_SECONDS = 0.05;
/** A recording must go on for this long after the crank to say what came of it, s. */
const LEAST_AFTER_SECONDS = 0.3;
// Falls and rises below are for 12 V; a string's count double.
/** A recording that begins under this begins in a crank, or on a battery too flat to tell, V. */
const CRANKING_BELOW_VOLTS = 11.4;
/** Contact of the starter pulls even a strong battery down by more than this, V. */
const CONTACT_DROP_VOLTS = 0.7;
/** And key-on by less, but by more than noise, V. */
const KEY_ON_LEAST_VOLTS = 0.03;
/** Volts this high are an alternator's. */
export const CHARGING_VOLTS = 13.2;
/** The inrush is over when this has passed and the starter turns, seconds. */
const INRUSH_SECONDS = 0.15;
/** By then it turns steadily, seconds. */
export const STEADY_SECONDS = 0.4;
/** Anything shorter was a click. */
const CRANK_LEAST_SECONDS = 0.25;
/** Volts must stay up this long before a crank is over: a lone cylinder lets them rise between compressions, seconds. */
const OVER_SECONDS = 0.4;
/** Recovery is read this long after a failed crank. */
const RECOVERY_SECONDS = 10;
const NOISE_SECONDS = 0.005;

/**
 * Finds rest, key-on, inrush, crank, recovery and charging in a recording of a try.
 *
 * @throws RangeError for a recording without a stretch of time
 */
export function analyseTrace(logged: Recording, subject: TraceSubject): TraceFindings {
  const { recording, mended } = cleaned(logged);
  const even = evened(recording);
  const notes = new Set<TraceNote>(mended);
  if (even.stepSeconds > SLOWEST_STEP_S) notes.add('too-coarse');
  if (gapsOf(recording).length > 0) notes.add('gap');
  const per12 = subject.systemVolts / 12;
  const calm = smoothed(even.volts, NOISE_SECONDS / even.stepSeconds);
  const cranks = cranksIn(even, calm, per12);
  const [crank] = [...cranks].sort((a, b) => b.to - b.from - (a.to - a.from));
  if (!crank) notes.add('no-crank');
  if (cranks.length > 1) notes.add('more-cranks');
  if (crank && crank.to >= even.volts.length) notes.add('ends-in-crank');
  const before = beforeCrank(even, calm, crank, per12);
  if (before.restVolts === null) notes.add('starts-in-crank');
  const described = crank && describeCrank(even, calm, crank, subject);
  if (described && described.chatterPerSecond !== null) notes.add('chatters');
  else if (described && subject.cylinders && described.rpm === null) notes.add('no-ripple');
  if (crank && isClipped(even, crank)) notes.add('clipped');
  const after = afterCrank(even, calm, crank, per12);
  return {
    durationSeconds: even.seconds[even.seconds.length - 1]!,
    stepSeconds: even.stepSeconds,
    ...before,
    crank: described ?? null,
    ...after,
    notes: [...notes],
  };
}

/** Stretches in which the starter draws: from a sharp fall until the volts stay up again. */
function cranksIn(even: EvenRecording, calm: Float64Array, per12: number): Stretch[] {
  const points = (seconds: number): number => Math.max(1, Math.round(seconds / even.stepSeconds));
  const found: Stretch[] = [];
  const inside = endOfFirst(calm, per12, points(SLOW_SECONDS), points(OVER_SECONDS));
  if (inside !== null && inside * even.stepSeconds >= CRANK_LEAST_SECONDS)
    found.push({ from: 0, to: inside });
  const first = inside === null ? 0 : Math.min(calm.length - 1, inside + points(NOISE_SECONDS));
  let level = calm[first]!;
  for (let i = first + 1; i < calm.length; i++) {
    if (calm[i]! > level - CONTACT_DROP_VOLTS * per12) {
      // The level before a crank follows what is slow: key-on, recovery, charging.
      level += (calm[i]! - level) * Math.min(1, even.stepSeconds / SLOW_SECONDS);
      continue;
    }
    const to = endOfCrank(calm, i, level, points(STEADY_SECONDS), points(OVER_SECONDS));
    if ((to - i) * even.stepSeconds >= CRANK_LEAST_SECONDS) found.push({ from: i, to });
    if (to >= calm.length) break;
    i = to + points(NOISE_SECONDS);
    level = calm[Math.min(i, calm.length - 1)]!;
  }
  return found;
}

/**
 * Returns the end of the crank that a recording begins in: low from its first point on, then a sharp rise that stays. Null where there is
 * none.
 */
function endOfFirst(calm: Float64Array, per12: number, rise: number, hold: number): number | null {
  const early = meanOf(calm, { from: 0, to: Math.max(1, Math.min(rise, calm.length)) });
  if (early > CRANKING_BELOW_VOLTS * per12) return null;
  for (let i = rise; i + hold < calm.length; i++) {
    if (calm[i]! - calm[i - rise]! < CONTACT_DROP_VOLTS * per12) continue;
    const before = meanOf(calm, { from: 0, to: Math.max(1, i - rise) });
    if (lowestOf(calm, { from: i, to: i + hold }) > before + 0.5 * CONTACT_DROP_VOLTS * per12)
      return steepest(calm, Math.max(1, i - rise), i);
  }
  return null;
}

function endOfCrank(calm: Float64Array, from: number, level: number, settle: number, hold: number): number {
  const begin = Math.min(calm.length, from + Math.ceil(settle / 4));
  const mean = meanOf(calm, { from: begin, to: Math.min(calm.length, Math.max(begin + 1, from + settle)) });
  const over = mean + (level - mean) * 0.5;
  for (let i = from + 1; i < calm.length; i++) {
    if (calm[i]! <= over) continue;
    let k = i;
    while (k < calm.length && calm[k]! > over) k++;
    if (k - i >= hold || (k === calm.length && k - i >= hold / 4))
      return steepest(calm, Math.max(from + 1, i - hold), i);
    i = k;
  }
  return calm.length;
}

/** Returns the point at which the volts rise most: the contact opens there, and the battery's slow recovery follows. */
function steepest(calm: Float64Array, from: number, to: number): number {
  let best = to;
  let most = 0;
  for (let i = from; i <= to; i++) {
    const rise = calm[i]! - calm[i - 1]!;
    if (rise > most) {
      most = rise;
      best = i;
    }
  }
  return best;
}

function beforeCrank(
  even: EvenRecording,
  calm: Float64Array,
  crank: Stretch | undefined,
  per12: number,
): Pick<TraceFindings, 'restVolts' | 'keyOnDropVolts'> {
  const margin = Math.ceil((2 * NOISE_SECONDS) / even.stepSeconds);
  const end = crank ? crank.from - margin : calm.length;
  if (end < 4) return { restVolts: null, keyOnDropVolts: null };
  const part = Math.max(2, Math.floor(end / 5));
  const rest = medianOf(even.volts, { from: 0, to: part });
  const level = medianOf(even.volts, { from: end - part, to: end });
  const fell = crank ? rest - level : 0;
  return { restVolts: rest, keyOnDropVolts: fell > KEY_ON_LEAST_VOLTS * per12 ? fell : 0 };
}

function describeCrank(
  { seconds, volts, amps, stepSeconds }: EvenRecording,
  calm: Float64Array,
  { from, to }: Stretch,
  { cylinders }: TraceSubject,
): RecordedCrank {
  const at = (afterSeconds: number): number =>
    Math.min(to - 1, from + Math.max(1, Math.round(afterSeconds / stepSeconds)));
  const turning = { from: at(INRUSH_SECONDS), to };
  const margin = Math.round(EDGE_SECONDS / stepSeconds);
  const steadyFrom = at(STEADY_SECONDS);
  const steady = { from: steadyFrom, to: Math.max(steadyFrom + 1, to - margin) };
  const chatterPerSecond = chatterOf(calm, { from, to }, stepSeconds);
  const ripple =
    cylinders === null || chatterPerSecond !== null
      ? null
      : rippleOf(amps ? amps.map((a) => -a) : calm, steady, stepSeconds, cylinders);
  // The first moment of the contact is a jump of both: its slope, and that of the ripple, is the resistance that is there at once.
  const moving = { from: Math.max(0, from - margin), to: at(STEADY_SECONDS) };
  return {
    fromSeconds: seconds[from]!,
    toSeconds: seconds[to - 1]!,
    inrushVolts: lowestOf(volts, { from, to: at(INRUSH_SECONDS) + 1 }),
    minimumVolts: lowestOf(calm, turning),
    meanVolts: meanOf(volts, steady),
    meanAmps: amps && meanOf(amps, steady),
    rpm: ripple?.rpm ?? null,
    unevenShare: ripple?.unevenShare ?? null,
    chatterPerSecond,
    ohms: amps && Math.max(0, -slopeOf(amps, volts, moving)),
  };
}

/** Volts come back this far towards rest each time a solenoid lets go: between compressions they never do. */
const LETS_GO_SHARE = 0.75;
/** Times a second from which it chatters, and the share of the time that it is let go. */
const CHATTER = { leastPerSecond: 4, mostPerSecond: 25, leastShare: 0.12 } as const;

/** How many times a second the volts leap back towards rest, where that is a solenoid's chatter. */
function chatterOf(calm: Float64Array, { from, to }: Stretch, stepSeconds: number): number | null {
  // An unknown rest tells nothing of how far the volts come back.
  if (from === 0) return null;
  const seconds = (to - from) * stepSeconds;
  const margin = Math.max(1, Math.round(EDGE_SECONDS / stepSeconds));
  const level = medianOf(calm, { from: Math.max(0, from - 8 * margin), to: Math.max(1, from - 1) });
  const sorted = calm.slice(from, to).sort();
  const low = sorted[Math.floor(sorted.length * 0.1)]!;
  const up = low + (level - low) * LETS_GO_SHARE;
  let times = 0;
  let above = 0;
  let isUp = false;
  for (let i = from; i < to; i++) {
    if (calm[i]! > up) above++;
    if (!isUp && calm[i]! > up) {
      isUp = true;
      times++;
    } else if (isUp && calm[i]! < low + (level - low) * (1 - LETS_GO_SHARE)) isUp = false;
  }
  const perSecond = times / seconds;
  const { leastPerSecond, mostPerSecond, leastShare } = CHATTER;
  return perSecond >= leastPerSecond && perSecond <= mostPerSecond && above >= leastShare * (to - from)
    ? perSecond
    : null;
}

/** Share and count of a crank's points at its very lowest value, where the logger could read no lower. */
const CLIPPED = { share: 0.1, points: 12 } as const;

/** True where the lowest volts are a floor of the logger and not of the battery. */
function isClipped({ volts }: EvenRecording, { from, to }: Stretch): boolean {
  const floor = lowestOf(volts, { from, to });
  let at = 0;
  for (let i = from; i < to; i++) if (volts[i] === floor) at++;
  return at >= CLIPPED.points && at >= CLIPPED.share * (to - from);
}

function afterCrank(
  even: EvenRecording,
  calm: Float64Array,
  crank: Stretch | undefined,
  per12: number,
): Pick<TraceFindings, 'recovery' | 'charging'> {
  const from = crank ? crank.to : 0;
  const left = calm.length - from;
  const hold = Math.round(LEAST_AFTER_SECONDS / even.stepSeconds);
  if (left < Math.max(4, hold)) return { recovery: null, charging: null };
  const tail = { from: calm.length - Math.max(2, Math.floor(left / 5)), to: calm.length };
  const settled = medianOf(even.volts, tail);
  if (settled >= CHARGING_VOLTS * per12) {
    let at = from;
    while (at < calm.length && calm[at]! < CHARGING_VOLTS * per12) at++;
    return { recovery: null, charging: { atSeconds: even.seconds[at]!, volts: settled } };
  }
  if (!crank) return { recovery: null, charging: null };
  const read = Math.min(calm.length - 1, from + Math.round(RECOVERY_SECONDS / even.stepSeconds));
  return {
    recovery: { volts: calm[read]!, afterSeconds: even.seconds[read]! - even.seconds[from]! },
    charging: null,
  };
}
