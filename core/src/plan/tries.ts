import { type AttemptOutcome, type CrankPoint, wakePoint } from '../crank/index.js';
import type { Engine } from '../engine/index.js';
import { parameter, type Random } from '../quantities/index.js';
import { doesStart, type Draw, drawnCranks, type DrawnOf, drawUnknowns } from './draws.js';
import type { CrankMoment } from './plan-case.js';

/** A try of this job that has ended: what was joined in its moment, and what it showed. */
export interface TryMade {
  readonly moment: CrankMoment;
  readonly outcome: AttemptOutcome;
  /** Lowest volts at the posts; null when nobody read them. */
  readonly lowestVolts: number | null;
  /** Its clicks were rapid: the solenoid chattered. */
  readonly chatters?: boolean;
}

/** What the tries of a job have taught. */
export interface Learned {
  readonly draws: readonly Draw[];
  /** How likely each of them is, adding up to one. */
  readonly weights: readonly number[];
  /** How likely the fault lies where no source helps: starter, engine, a lock. */
  readonly elsewhere: number;
}

/** Of machines that call for starting power, so many would not start with any. */
export const ELSEWHERE_SHARE = parameter(0.08, {
  id: 'tries.elsewhere',
  name: 'calls whose fault no source helps',
  low: 0.04,
  high: 0.2,
  unit: 'of calls',
  reason: 'Starter, engine, a lock: before any try; a failed one makes it likelier.',
});
/** A meter at the posts differs from the steady point by so much: ripple, the moment it is read, its leads; V for each 12 V. */
export const LOWEST_VOLTS_DEVIATION = parameter(0.35, {
  id: 'tries.lowestVolts',
  name: 'how well the lowest volts of a try are read',
  low: 0.2,
  high: 0.6,
  unit: 'V for each 12 V',
  reason: 'Ripple, the moment it is read, the leads of the meter.',
});
/** And by this share of what the posts sag: how hard it drags and how flat it is are known no better. */
export const SAG_DEVIATION = parameter(0.25, {
  id: 'tries.sag',
  name: 'and how well what it sags is foretold',
  low: 0.1,
  high: 0.4,
  unit: 'of the sag',
  reason: 'How hard it drags and how flat it is are known no better.',
});
/** A draw that is this much less likely than the likeliest is let go. */
const NEGLIGIBLE = 1e-4;

/** Of batteries that call, so many are far more worn than most. */
export const WORN_SHARE = parameter(0.15, {
  id: 'tries.worn',
  name: 'batteries that are far more worn than most',
  low: 0.05,
  high: 0.3,
  unit: 'of calls',
  reason: 'Counted only once a try has failed.',
});
/** Of hook-ups, so many have a clamp that bites paint, rust or a loose bolt. */
export const BADLY_SET_SHARE = parameter(0.06, {
  id: 'tries.badlySet',
  name: 'hook-ups with a clamp badly set',
  low: 0.03,
  high: 0.12,
  unit: 'of hook-ups',
  reason: 'Paint, rust, a loose bolt. Counted only once a try has failed.',
});
/** How much worse than usual such a contact is, times. */
const [BADLY_SET_FROM, BADLY_SET_TO] = [6, 40];
/** One draw in so many stands for each of those. */
const SET_APART = 5;
/** How far they lie from the middle of the ageing drawn, deviations: twice to five times a usual one's resistance. */
const [WORN_FROM, WORN_TO] = [2.5, 7];

type Chances = Readonly<Record<AttemptOutcome, number>>;
/** How a try ends, by what the circuit says of it. What should fire does not always, and hands tell apart what they hear only so well. */
const WHEN: Readonly<Record<'fires' | 'volts-low' | 'turns-slow' | 'stands', Chances>> = {
  fires: { started: 0.96, 'brisk-no-fire': 0.012, slow: 0.015, clicks: 0.007, nothing: 0.006 },
  'volts-low': { started: 0.06, 'brisk-no-fire': 0.5, slow: 0.32, clicks: 0.1, nothing: 0.02 },
  'turns-slow': { started: 0.04, 'brisk-no-fire': 0.06, slow: 0.8, clicks: 0.08, nothing: 0.02 },
  stands: { started: 0.015, 'brisk-no-fire': 0.005, slow: 0.2, clicks: 0.63, nothing: 0.15 },
};

/** How a try ends whose fault no source helps, and where that leaves the posts: each kind of fault has a circuit of its own. */
const FAULTS_ELSEWHERE: readonly {
  readonly posts: 'cranking' | 'dragging' | 'stalled' | 'still';
  readonly chances: Partial<Chances>;
}[] = [
  // Fuel, spark, immobiliser.
  { posts: 'cranking', chances: { 'brisk-no-fire': 0.45 } },
  // A starter or an engine that binds.
  { posts: 'dragging', chances: { slow: 0.17 } },
  // A starter that is locked takes all that the battery gives.
  { posts: 'stalled', chances: { clicks: 0.08, nothing: 0.03 } },
  // A dead starter, a strap that is nearly open, a lock: next to no amps flow.
  { posts: 'still', chances: { clicks: 0.12, nothing: 0.15 } },
];
/** A solenoid chatters where its volts give way under it: of the clicks of a fault that no source helps so many do, share. */
const CHATTERS_SHARE = 0.05;
/** A starter that binds drags so many times as hard; a locked one so many times as hard that nothing turns it. */
const [BINDS_TIMES, LOCKED_TIMES] = [2.5, 1e6];

function kindOf(point: CrankPoint, { firing }: Draw): keyof typeof WHEN {
  if (!point.turns) return 'stands';
  if (doesStart(point, firing)) return 'fires';
  return point.rpm < point.neededRpm * firing ? 'turns-slow' : 'volts-low';
}

/**
 * What is not known, weighed by what each try of this job showed: a draw in which that try would have gone so counts for more. The second
 * plan then knows the result of the first try.
 *
 * @param samples draws to begin with; those that the tries rule out are left away
 */
export function learnedFrom(
  tries: readonly TryMade[],
  engine: Engine,
  samples: number,
  random: Random,
): Learned {
  const draws = Array.from({ length: samples }, () => drawUnknowns(random));
  let likelihoods = draws.map(() => 1);
  if (tries.length > 0) {
    // Before a try a worn battery and a clamp on paint are doubts among many; after one that failed they must be there to be found.
    draws.forEach((draw, i) => {
      if (i % SET_APART === 0) draws[i] = { ...draw, ageing: WORN_FROM + (WORN_TO - WORN_FROM) * random() };
      if (i % SET_APART === 1)
        draws[i] = { ...draw, clamps: BADLY_SET_FROM * (BADLY_SET_TO / BADLY_SET_FROM) ** random() };
    });
    const shares = [WORN_SHARE, BADLY_SET_SHARE];
    const others = (1 - sum(shares)) / (1 - shares.length / SET_APART);
    likelihoods = draws.map((_, i) => {
      const share = shares[i % SET_APART];
      return share === undefined ? others : share * SET_APART;
    });
  }
  let elsewhere = ELSEWHERE_SHARE;
  for (const { moment, outcome, lowestVolts, chatters = false } of tries) {
    const crankOf = drawnCranks({ rescue: moment.rescue, batteries: moment.beliefs }, engine);
    const { casualty } = moment.rescue;
    const openVolts = sum(casualty.map((b) => b.openVolts));
    /** How likely the lowest volts are that were read, where the circuit leaves the posts at these. */
    const readAt = (postVolts: number): number => {
      if (lowestVolts === null) return 1;
      const sagVolts = Math.max(0, openVolts - postVolts);
      const scale = LOWEST_VOLTS_DEVIATION * casualty.length + SAG_DEVIATION * sagVolts;
      return bell((lowestVolts - postVolts) / scale, scale);
    };
    const stillVolts = wakePoint(moment.rescue, 0).postVolts;
    const readElsewhere = (draw: Draw, point: CrankPoint): number =>
      sum(
        FAULTS_ELSEWHERE.map(({ posts, chances }) => {
          const chance = chances[outcome] ?? 0;
          if (chance === 0) return 0;
          const left = {
            cranking: () => point.postVolts,
            dragging: () => crankOf({ ...draw, drag: draw.drag * BINDS_TIMES }).postVolts,
            stalled: () => crankOf({ ...draw, breakaway: LOCKED_TIMES }).postVolts,
            still: () => stillVolts,
          };
          return (chatters ? CHATTERS_SHARE : 1) * chance * readAt(left[posts]());
        }),
      );
    const each = draws.map((draw) => {
      const point = crankOf(draw);
      return {
        here: WHEN[kindOf(point, draw)][outcome] * readAt(point.postVolts),
        there: readElsewhere(draw, point),
      };
    });
    const before = sum(likelihoods);
    const there = (elsewhere * sum(likelihoods.map((l, i) => l * each[i]!.there))) / before;
    likelihoods = likelihoods.map((l, i) => l * each[i]!.here);
    const here = (1 - elsewhere) * (sum(likelihoods) / before);
    elsewhere = there / (here + there);
  }
  const least = NEGLIGIBLE * Math.max(...likelihoods);
  const kept = draws.flatMap((draw, i) =>
    likelihoods[i]! >= least ? [{ draw, weight: likelihoods[i]! }] : [],
  );
  const whole = sum(kept.map((k) => k.weight));
  return {
    draws: kept.map((k) => k.draw),
    weights: kept.map((k) => k.weight / whole),
    elsewhere: tries.length > 0 ? elsewhere : 0,
  };
}

/** How likely this starts, of what was learned: the weights of the draws in which it does, less what lies where no source helps. */
export function startOfLearned(of: DrawnOf, engine: Engine, { draws, weights, elsewhere }: Learned): number {
  const crankOf = drawnCranks(of, engine);
  const starting = weights.filter((_, i) => doesStart(crankOf(draws[i]!), draws[i]!.firing));
  return (1 - elsewhere) * Math.min(1, sum(starting));
}

/** What was learned, once every clamp has been set again on bright metal: whatever ailed them is drawn anew. */
export function clampsSetAgain(learned: Learned, random: Random): Learned {
  return {
    ...learned,
    draws: learned.draws.map((draw) => ({ ...draw, clamps: drawUnknowns(random).clamps })),
  };
}

/** A bell with a floor: a figure that was misread must not rule out everything. */
const bell = (score: number, deviation: number): number =>
  (0.97 * Math.exp(-(score ** 2) / 2)) / (deviation * Math.sqrt(2 * Math.PI)) + 0.03 / (12 * deviation);

const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
