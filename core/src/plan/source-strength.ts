import { type AttemptOutcome, crankPoint } from '../crank/index.js';
import type { Engine } from '../engine/index.js';
import type { MeasuredFactor } from '../leads/index.js';
import { bisect } from '../quantities/index.js';
import { type CrankMoment, LOWEST_VOLTS_DEVIATION, SAG_DEVIATION } from '../belief/index.js';

/** A source is looked for between these, as many times the resistance of its rating. */
const [STRONGEST, WEAKEST] = [0.3, 10];
const HALVINGS = 24;

/**
 * Returns the lesson of one try about a pack: the factor on its rated resistance at which the posts fall as far as they did. The posts also
 * tell of the battery, the clamps and the engine's drag. So one try says little, and a few say more.
 *
 * @param moment of the try, with the source as it is rated
 * @param lowestVolts at the casualty's posts
 * @returns null where nothing turned, or nothing lent: then the posts do not tell of the source
 */
export function sourceFactor(
  { rescue }: CrankMoment,
  engine: Engine,
  outcome: AttemptOutcome,
  lowestVolts: number,
): MeasuredFactor | null {
  const { source, casualty } = rescue;
  if (!source || outcome === 'clicks' || outcome === 'nothing') return null;
  const postVolts = (factor: number): number =>
    crankPoint({ ...rescue, source: { ...source, ohms: source.ohms * factor } }, engine).postVolts;
  const factorAt = (volts: number): number =>
    bisect((factor) => postVolts(factor) > volts, STRONGEST, WEAKEST, HALVINGS).low;
  const sagVolts = Math.max(0, source.openVolts - lowestVolts);
  const doubtVolts = LOWEST_VOLTS_DEVIATION * casualty.length + SAG_DEVIATION * sagVolts;
  const spread = (factorAt(lowestVolts - doubtVolts) - factorAt(lowestVolts + doubtVolts)) / 2;
  return { factor: factorAt(lowestVolts), spread };
}
