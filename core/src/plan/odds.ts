import type { Engine } from '../engine/index.js';
import type { Random } from '../quantities/index.js';
import {
  doesStart,
  type Draw,
  drawnCranks,
  type DrawnOf,
  drawUnknowns,
  type Unknown,
  UNKNOWNS,
} from './draws.js';

export interface OddsInput extends DrawnOf {
  readonly engine: Engine;
  readonly samples: number;
}

export interface Odds {
  /** Share of the samples that start. */
  readonly start: number;
  /** The interval of the true share, 95 in 100 (Wilson score). */
  readonly low: number;
  readonly high: number;
  readonly samples: number;
  readonly meanRpm: number;
  readonly meanStarterVolts: number;
  /** How much of the doubt each unknown brings: squared correlation with the speed margin, 0 to 1. */
  readonly matters: Readonly<Record<Unknown, number>>;
}

/**
 * The odds of a start by seeded Monte Carlo over what is not known. Every sample solves the whole circuit at its quasi-steady point. The
 * plates are polarised as in the second in which it fires.
 *
 * @param onProgress called with the share done about fifty times; return false to stop early
 * @returns null when stopped
 */
export function startOdds(
  input: OddsInput,
  random: Random,
  onProgress: (share: number) => boolean = () => true,
): Odds | null {
  const { samples } = input;
  if (!Number.isInteger(samples) || samples < 1)
    throw new RangeError('samples must be a whole number above zero');
  const crankOf = drawnCranks(input, input.engine);
  const every = Math.max(1, Math.floor(samples / 50));
  const tally = correlations();
  let starts = 0;
  let rpm = 0;
  let volts = 0;
  for (let i = 0; i < samples; i++) {
    const draw = drawUnknowns(random);
    const point = crankOf(draw);
    if (doesStart(point, draw.firing)) starts++;
    rpm += point.rpm;
    volts += point.starterVolts;
    tally.add(draw, point.turns ? point.rpm / (point.neededRpm * draw.firing) : point.starterAmps / 1e4);
    if (i % every === 0 && !onProgress(i / samples)) return null;
  }
  return {
    start: starts / samples,
    ...wilson(starts, samples),
    samples,
    meanRpm: rpm / samples,
    meanStarterVolts: volts / samples,
    matters: tally.squared(),
  };
}

/** Wilson score interval of a share, 95 in 100. */
function wilson(hits: number, of: number): { low: number; high: number } {
  const z = 1.96;
  const share = hits / of;
  const centre = share + z ** 2 / (2 * of);
  const reach = z * Math.sqrt((share * (1 - share)) / of + z ** 2 / (4 * of ** 2));
  const scale = 1 + z ** 2 / of;
  return { low: Math.max(0, (centre - reach) / scale), high: Math.min(1, (centre + reach) / scale) };
}

/** Squared correlation of each unknown with an outcome, gathered in one pass. */
function correlations() {
  let n = 0;
  let sumY = 0;
  let sumYY = 0;
  const sums = UNKNOWNS.map(() => ({ x: 0, xx: 0, xy: 0 }));
  return {
    add: (draw: Draw, y: number): void => {
      n++;
      sumY += y;
      sumYY += y * y;
      UNKNOWNS.forEach((unknown, i) => {
        const x = draw[unknown];
        const sum = sums[i]!;
        sum.x += x;
        sum.xx += x * x;
        sum.xy += x * y;
      });
    },
    squared: (): Record<Unknown, number> => {
      const spreadY = sumYY / n - (sumY / n) ** 2;
      const entries = UNKNOWNS.map((unknown, i) => {
        const { x, xx, xy } = sums[i]!;
        const spreadX = xx / n - (x / n) ** 2;
        const together = xy / n - (x / n) * (sumY / n);
        const both = spreadX * spreadY;
        return [unknown, both > 1e-18 ? together ** 2 / both : 0] as const;
      });
      return Object.fromEntries(entries) as Record<Unknown, number>;
    },
  };
}
