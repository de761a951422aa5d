/** Volts at the posts, and amps where they were logged, against time. All lists are as long as one another. */
export interface Recording {
  /** Rising, from any zero. */
  readonly seconds: Float64Array;
  readonly volts: Float64Array;
  /** Into the starter; null when only volts were logged. */
  readonly amps: Float64Array | null;
}

/** A recording on an even grid. */
export interface EvenRecording extends Recording {
  readonly stepSeconds: number;
}

/** Finest step worth keeping: compression of the fastest engine takes a hundred of these. */
const FINEST_STEP_S = 0.0005;
/** A pause this many usual steps long is a gap: the logger missed something. */
const GAP_STEPS = 20;
/** A compression needs several points, or its ripple is not there: slowest step that shows a crank at all, seconds. */
export const SLOWEST_STEP_S = 0.1;

/** A stretch that the logger missed. */
export interface Gap {
  readonly fromSeconds: number;
  readonly toSeconds: number;
}

/** The usual step between two points, seconds. */
export function usualStep({ seconds }: Recording): number {
  const count = Math.min(seconds.length - 1, 4096);
  const stride = Math.max(1, Math.floor((seconds.length - 1) / count));
  const steps: number[] = [];
  for (let i = stride; i < seconds.length; i += stride) steps.push(seconds[i]! - seconds[i - 1]!);
  steps.sort((a, b) => a - b);
  return steps[Math.floor(steps.length / 2)] ?? 0;
}

/** The gaps of the logger. */
export function gapsOf(recording: Recording): Gap[] {
  const { seconds } = recording;
  const longest = usualStep(recording) * GAP_STEPS;
  const gaps: Gap[] = [];
  for (let i = 1; i < seconds.length; i++) {
    if (seconds[i]! - seconds[i - 1]! > longest)
      gaps.push({ fromSeconds: seconds[i - 1]!, toSeconds: seconds[i]! });
  }
  return gaps;
}

/**
 * The recording on an even grid from zero: points that fall into one step are averaged, steps that nothing fell into lie on the line
 * between their neighbours.
 *
 * @throws RangeError for fewer than two points
 */
export function evened(recording: Recording): EvenRecording {
  const { seconds, volts, amps } = recording;
  if (seconds.length < 2) throw new RangeError('a recording needs at least two points');
  const stepSeconds = Math.max(FINEST_STEP_S, usualStep(recording));
  const first = seconds[0]!;
  const count = Math.floor((seconds[seconds.length - 1]! - first) / stepSeconds) + 1;
  const grid = Float64Array.from({ length: count }, (_, i) => i * stepSeconds);
  const place = (i: number): number => Math.min(count - 1, Math.round((seconds[i]! - first) / stepSeconds));
  const gather = (values: Float64Array): Float64Array => {
    const sums = new Float64Array(count);
    const hits = new Uint32Array(count);
    for (let i = 0; i < values.length; i++) {
      const at = place(i);
      sums[at]! += values[i]!;
      hits[at]!++;
    }
    return bridged(sums, hits);
  };
  return { stepSeconds, seconds: grid, volts: gather(volts), amps: amps && gather(amps) };
}

/** Means of the steps that something fell into, and straight lines over the others. The first and the last step always hold a point. */
function bridged(sums: Float64Array, hits: Uint32Array): Float64Array {
  let last = 0;
  for (let i = 0; i < sums.length; i++) {
    if (hits[i] === 0) continue;
    sums[i]! /= hits[i]!;
    for (let k = last + 1; k < i; k++)
      sums[k] = sums[last]! + ((sums[i]! - sums[last]!) * (k - last)) / (i - last);
    last = i;
  }
  // Rounding can leave the very last step without a point.
  for (let k = last + 1; k < sums.length; k++) sums[k] = sums[last]!;
  return sums;
}
