import { ATTEMPT_OUTCOMES, type AttemptOutcome } from '../crank/index.js';
import { type Change, type DiagnosisEvidence, type DiagnosisProfile, TRY_ROWS } from '../diagnosis/index.js';
import type { Engine } from '../engine/index.js';
import { parameter, type Random } from '../quantities/index.js';
import type { EarlierBelief } from './carry.js';
import {
  type CrankMoment,
  cranksIn,
  lookIn,
  type Population,
  type PossibleMachine,
  stillVoltsIn,
} from './population.js';
import { drawClamps, MOST_LIKELY } from './unknowns.js';

/** A try of this job that has ended: what was joined in its moment, and what it showed. */
export interface TryMade {
  /** Its time, by which the findings name it. */
  readonly at: string;
  /** Repairs that had been made by then. */
  readonly repaired: number;
  readonly moment: CrankMoment;
  readonly outcome: AttemptOutcome;
  /** Lowest volts at the posts; null when nobody read them. */
  readonly lowestVolts: number | null;
}

/** Everything that a job says of its machine: plain data, so that it may go to a worker. */
export interface Findings {
  readonly profile: DiagnosisProfile;
  readonly repairs: readonly Change[];
  /** The belief that earlier jobs of its vehicle left; null where there is none. */
  readonly earlier: EarlierBelief | null;
  readonly evidence: readonly DiagnosisEvidence[];
  readonly tries: readonly TryMade[];
}

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
/** Of such readings so many tell nothing: another moment, another place. */
const SLIP_SHARE = 0.05;
/** They lie anywhere within so many volts for each 12 V. */
const SLIP_VOLTS = 12;

/** Returns how likely this try is on a machine. */
export function tryLikelihood(
  { moment, outcome, lowestVolts }: TryMade,
  engine: Engine,
): (machine: PossibleMachine) => number {
  const crankOf = cranksIn(moment, engine);
  const at = ATTEMPT_OUTCOMES.indexOf(outcome);
  const batteries = moment.beliefs.length;
  const restVolts = stillVoltsIn(moment, { hidden: null, draw: MOST_LIKELY });
  return (machine) => {
    const point = crankOf(machine);
    const chance = TRY_ROWS[lookIn(moment, machine, point, engine)][at]!;
    if (lowestVolts === null) return chance;
    const postVolts = point?.postVolts ?? stillVoltsIn(moment, machine);
    const sag = Math.max(0, restVolts - postVolts);
    const deviation = LOWEST_VOLTS_DEVIATION * batteries + (SAG_DEVIATION / 2) * sag;
    return chance * density(lowestVolts - postVolts, deviation, batteries);
  };
}

/** Density of a figure that is off by so much: a bell with a floor, since a figure that was misread must not rule out everything. */
const density = (off: number, deviation: number, batteries: number): number =>
  ((1 - SLIP_SHARE) * Math.exp(-((off / deviation) ** 2) / 2)) / (deviation * Math.sqrt(2 * Math.PI)) +
  SLIP_SHARE / (SLIP_VOLTS * batteries);

/** The population once every clamp has been set again on bright metal: whatever ailed them is drawn anew. */
export const clampsSetAgain = (population: Population, random: Random): Population => ({
  ...population,
  machines: population.machines.map(({ hidden, draw }) => ({
    hidden,
    draw: { ...draw, clamps: drawClamps(random) },
  })),
});
