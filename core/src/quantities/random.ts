/** A source of numbers in [0, 1), always the same for the same seed. */
export type Random = () => number;

/**
 * The mulberry32 generator: small, fast, and good enough for demo data and sampling; not for secrets.
 *
 * @example seededRandom(7)() === seededRandom(7)() // => true
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * One of these, each as often as its weight says.
 *
 * @throws RangeError for none
 * @example drawWeighted(() => 0.9, [['a', 1], ['b', 1]]) // => 'b'
 */
export function drawWeighted<T>(random: Random, entries: readonly (readonly [T, number])[]): T {
  const last = entries.at(-1);
  if (!last) throw new RangeError('nothing to draw from');
  let left = random() * entries.reduce((sum, [, weight]) => sum + weight, 0);
  const found = entries.find(([, weight]) => (left -= weight) < 0);
  // Rounding can leave a sliver beyond the last.
  return (found ?? last)[0];
}

/** One of these, each as often as any other. @throws RangeError for none */
export const pick = <T>(random: Random, list: readonly T[]): T =>
  drawWeighted(
    random,
    list.map((item) => [item, 1] as const),
  );

/** A number between two ends, each as likely as any other. */
export const between = (random: Random, low: number, high: number): number => low + (high - low) * random();

/** A normally distributed number by the Box-Muller transform. */
export function normal(random: Random, mean: number, deviation: number): number {
  const u = Math.max(random(), Number.MIN_VALUE);
  return mean + deviation * Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random());
}

/**
 * Returns the same values with seven digits. Use it for drawn parameters: browsers and Node differ in the last bits of exponentials, and a
 * draw must not.
 *
 * @example quantised({ soc: 0.5 }).soc // => 0.5
 */
export function quantised<T extends object>(values: T): T {
  return Object.fromEntries(
    Object.entries(values).map(([key, value]) => [
      key,
      typeof value === 'number' ? Math.fround(value) : value,
    ]),
  ) as T;
}
