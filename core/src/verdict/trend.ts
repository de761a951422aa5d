import { bisect, DAY_MS, DAYS_A_YEAR } from '../quantities/index.js';
import { ageingOfStrength, strengthShare } from '../battery/index.js';
import { aloneRescue, modelBattery } from '../circuit/index.js';
import { crankPoint, firesAt, wakePoint } from '../crank/index.js';
import type { Machine } from '../machine/index.js';
import type { HouseRules } from '../rules/index.js';

/** Strength of a battery as it was found one day. */
export interface StrengthPoint {
  /** Days since any fixed day. */
  readonly day: number;
  /** Share of the rating. */
  readonly share: number;
  /** Spread of that reading, as a share. */
  readonly spread: number;
}

/** The course of a battery's strength. */
export interface StrengthTrend {
  /** Share of the rating a year. */
  readonly perYear: number;
  readonly perYearSpread: number;
  /** Share on a day, and its spread. */
  readonly at: (day: number) => { readonly share: number; readonly spread: number };
  /** When it falls under what the machine needs: likeliest day, and the days between which four in five would; null where never. */
  readonly fallsBelow: {
    readonly day: number | null;
    readonly earliest: number | null;
    readonly latest: number | null;
  };
}

/** Spread of a strength that was written down without one, as a share of the rating. */
const UNTOLD_SPREAD = 0.1;

/** Returns the strengths among the entries of a battery's record. */
export function strengthPoints(
  entries: readonly {
    readonly at: string | Date;
    readonly share: number | null;
    readonly spread: number | null;
  }[],
): StrengthPoint[] {
  return entries.flatMap(({ at, share, spread }) =>
    share === null ? [] : [{ day: new Date(at).getTime() / DAY_MS, share, spread: spread ?? UNTOLD_SPREAD }],
  );
}

/** The prior of any battery before its own readings: it loses about this share a year, give or take. */
const USUAL_PER_YEAR = -0.06;
const USUAL_SPREAD = 0.04;
/** And stood about here on the first day. */
const USUAL_FIRST = 0.9;
const USUAL_FIRST_SPREAD = 0.2;
/** Four in five lie within this many spreads. */
const FOUR_IN_FIVE = 1.28;
/** Further off than this is never, days. */
const HORIZON_DAYS = 12 * DAYS_A_YEAR;

/**
 * The trend of a battery's strength: a straight line through its readings, each counted by its spread, started from what any battery does.
 * With one reading that usual fall decides; with many, the readings.
 *
 * @param needShare share of its rating that its machine needs
 * @throws RangeError without a reading
 */
export function strengthTrend(points: readonly StrengthPoint[], needShare: number): StrengthTrend {
  if (points.length === 0) throw new RangeError('a trend needs at least one reading');
  const first = Math.min(...points.map((p) => p.day));
  // Bayes' rule for a line with normal spreads: precisions add.
  let a = 1 / USUAL_FIRST_SPREAD ** 2;
  let b = 0;
  let c = 1 / USUAL_SPREAD ** 2;
  let u = USUAL_FIRST / USUAL_FIRST_SPREAD ** 2;
  let v = USUAL_PER_YEAR / USUAL_SPREAD ** 2;
  for (const { day, share, spread } of points) {
    const years = (day - first) / DAYS_A_YEAR;
    const weight = 1 / spread ** 2;
    a += weight;
    b += weight * years;
    c += weight * years ** 2;
    u += weight * share;
    v += weight * share * years;
  }
  const size = a * c - b * b;
  const start = (c * u - b * v) / size;
  const perYear = (a * v - b * u) / size;
  const at = (day: number): { share: number; spread: number } => {
    const years = (day - first) / DAYS_A_YEAR;
    return {
      share: start + perYear * years,
      spread: Math.sqrt(Math.max(0, (c - 2 * b * years + a * years ** 2) / size)),
    };
  };
  const last = Math.max(...points.map((p) => p.day));
  const crosses = (spreads: number): number | null => {
    for (let day = last; day <= last + HORIZON_DAYS; day++) {
      const { share, spread } = at(day);
      if (share + spreads * spread < needShare) return day;
    }
    return null;
  };
  return {
    perYear,
    perYearSpread: Math.sqrt(a / size),
    at,
    fallsBelow: { day: crosses(0), earliest: crosses(-FOUR_IN_FIVE), latest: crosses(FOUR_IN_FIVE) },
  };
}

/** Charge that a battery in use may be counted on, for what a machine needs. */
const COUNTED_SOC = 0.8;
const WEAKEST_SHARE = 0.2;
/** To less than a tenth of a percent. */
const HALVINGS = 10;

/** Least share of its rating at which this machine still starts, or wakes, in the cold, on its own battery. 1 when even a new one does not. */
export function neededShare(machine: Machine, coldC: number, rules: HouseRules): number {
  const starts = (share: number): boolean => {
    const models = machine.batteries.map(({ rating }) => {
      const state = { soc: COUNTED_SOC, tempC: coldC, ageing: Math.max(1, ageingOfStrength(share)) };
      return modelBattery(rating, state);
    });
    const rescue = aloneRescue(models, coldC);
    if (!machine.engine) return wakePoint(rescue, rules.wakeAmps).postVolts >= rules.wakeMinVolts;
    return firesAt(crankPoint(rescue, machine.engine));
  };
  if (!starts(strengthShare(1))) return 1;
  if (starts(WEAKEST_SHARE)) return WEAKEST_SHARE;
  return bisect((share) => !starts(share), WEAKEST_SHARE, 1, HALVINGS).high;
}
