import { likeness, meanOf, smoothed, type Stretch } from './series.js';

/** The speed of a crank by the ripple of compression. */
export interface Ripple {
  readonly rpm: number;
  /**
   * How much shallower the weakest cylinder's dip is than the mean of the others, 0 to 1; null with too few turns to tell. A cylinder
   * that does not compress makes no dip: 1.
   */
  readonly unevenShare: number | null;
}

/** Slowest and fastest that a starter turns anything. */
const RPM_LEAST = 40;
const RPM_MOST = 700;
/** A ripple this unlike itself is noise. */
const LIKENESS_LEAST = 0.3;
/** The first lag that is nearly as good as the best is one compression; later ones are its multiples. */
const NEARLY = 0.6;
/** A slow drift over this many compressions is no ripple. */
const DRIFT_COMPRESSIONS = 3;
/** Whole working cycles needed before cylinders are distinguished. */
const CYCLES_LEAST = 3;
/** Cylinders are distinguished only by a ripple that repeats well over whole cycles. */
const CYCLE_LIKENESS_LEAST = 0.5;

/**
 * Speed of a crank from the ripple of its volts or amps: each cylinder on compression slows the starter once in two turns.
 *
 * @param values volts, or amps turned over (so that compression is a dip), on an even grid
 * @param stretch where it turns steadily
 * @returns null when no ripple stands out of the noise
 */
export function rippleOf(
  values: Float64Array,
  stretch: Stretch,
  stepSeconds: number,
  cylinders: number,
): Ripple | null {
  const lagOf = (rpm: number): number => 120 / (cylinders * rpm) / stepSeconds;
  const longest = Math.floor(Math.min(lagOf(RPM_LEAST), (stretch.to - stretch.from) / 2));
  const shortest = Math.max(2, Math.floor(lagOf(RPM_MOST)));
  if (longest <= shortest + 1) return null;
  const rough = compressionLag(steadied(values, stretch, longest), shortest, longest);
  if (rough === null) return null;
  // Once more with the drift taken off over a window that suits this engine.
  const wave = steadied(values, stretch, Math.round(rough * DRIFT_COMPRESSIONS));
  const repeats = compressionLag(wave, shortest, longest) ?? rough;
  // With a dead cylinder only the whole cycle repeats itself; its compressions still stand out of it.
  const lag = repeats / compressionsIn(wave, repeats, cylinders, shortest);
  return { rpm: 120 / (cylinders * lag * stepSeconds), unevenShare: unevenness(wave, lag, cylinders) };
}

/** A stretch with its slow drift taken off. */
function steadied(values: Float64Array, { from, to }: Stretch, window: number): Float64Array {
  const part = values.slice(from, to);
  const drift = smoothed(part, window);
  const wave = part.map((v, i) => v - drift[i]!);
  const mean = meanOf(wave, { from: 0, to: wave.length });
  return wave.map((v) => v - mean);
}

/** Points from one compression to the next, between points; null when nothing repeats. */
function compressionLag(wave: Float64Array, shortest: number, longest: number): number | null {
  const alike: number[] = [];
  for (let lag = shortest - 1; lag <= longest + 1; lag++) alike.push(likeness(wave, lag));
  const isPeak = (i: number): boolean => alike[i]! > alike[i - 1]! && alike[i]! >= alike[i + 1]!;
  const peaks = alike.flatMap((_, i) => (i > 0 && i < alike.length - 1 && isPeak(i) ? [i] : []));
  const best = Math.max(...peaks.map((i) => alike[i]!));
  if (!(best >= LIKENESS_LEAST)) return null;
  const at = peaks.find((i) => alike[i]! >= best * NEARLY)!;
  const [before, here, after] = [alike[at - 1]!, alike[at]!, alike[at + 1]!];
  const bend = before - 2 * here + after;
  return shortest - 1 + at + (bend === 0 ? 0 : (before - after) / (2 * bend));
}

/**
 * How many compressions lie in one repeat: one. A dead cylinder gives a part of the cycle, or all of it where that multiple fits the wheel
 * better. Speed answers torque by its integral, so each multiple counts by its number.
 */
function compressionsIn(wave: Float64Array, repeat: number, cylinders: number, shortest: number): number {
  const push = (k: number): number => k * amplitudeAt(wave, (2 * Math.PI * k) / repeat);
  let best = 1;
  for (let k = 2; k <= cylinders && repeat / k >= shortest; k++)
    if (cylinders % k === 0 && push(k) > push(best) * CLEARLY) best = k;
  return best;
}
/** A further multiple must beat the one before it by this. */
const CLEARLY = 1.1;

/** Amplitude of a wave at this many radians a point. */
function amplitudeAt(wave: Float64Array, radians: number): number {
  let cosine = 0;
  let sine = 0;
  for (let i = 0; i < wave.length; i++) {
    cosine += wave[i]! * Math.cos(radians * i);
    sine += wave[i]! * Math.sin(radians * i);
  }
  return Math.hypot(cosine, sine) / wave.length;
}

/** Mean depth of each cylinder's dip, its place in the firing order kept by counting compressions. */
function unevenness(wave: Float64Array, lag: number, cylinders: number): number | null {
  const compressions = Math.floor(wave.length / lag);
  if (cylinders < 2 || compressions < CYCLES_LEAST * cylinders) return null;
  if (likeness(wave, Math.round(lag * cylinders)) < CYCLE_LIKENESS_LEAST) return null;
  const start = firstCrest(wave, lag);
  const depths = new Float64Array(cylinders);
  const counts = new Uint32Array(cylinders);
  for (let n = 0; start + (n + 1) * lag <= wave.length; n++) {
    const from = Math.round(start + n * lag);
    const to = Math.round(start + (n + 1) * lag);
    depths[n % cylinders]! += swingOf(wave.subarray(from, Math.min(to + 1, wave.length)));
    counts[n % cylinders]!++;
  }
  const means = [...depths].map((sum, i) => sum / counts[i]!);
  const weakest = Math.min(...means);
  const others = (means.reduce((a, b) => a + b, 0) - weakest) / (cylinders - 1);
  return others <= 0 ? null : Math.max(0, 1 - weakest / others);
}

/**
 * How far one compression swings the wave, with the straight line from its first to its last point taken off: a wheel left alone just runs
 * on.
 */
function swingOf(part: Float64Array): number {
  const last = part.length - 1;
  const level = part.map((v, i) => v - (part[0]! + ((part[last]! - part[0]!) * i) / last));
  return amplitudeAt(level, (2 * Math.PI) / last);
}

/**
 * Returns the beginning of the first compression: at the offset whose crests are highest, so that each stretch of one lag holds one dip.
 */
function firstCrest(wave: Float64Array, lag: number): number {
  const height = (offset: number): number => {
    let sum = 0;
    for (let at = offset; at < wave.length; at += lag) sum += wave[Math.floor(at)]!;
    return sum;
  };
  let best = 0;
  for (let offset = 1; offset < lag; offset++) if (height(offset) > height(best)) best = offset;
  return best;
}
