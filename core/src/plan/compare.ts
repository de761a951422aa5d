import type { HouseRules } from '../rules/index.js';

/** A measured crank against what the plan promised. */
export interface CrankComparison {
  /** Measured less promised, V. */
  readonly differenceVolts: number;
  readonly code: 'as-promised' | 'lower' | 'higher';
}

/**
 * The lowest volts read at the posts against the plan's. Lower than promised points at what the plan cannot see: a joint, a clamp's
 * contact, a starter that drags, a battery that is shorted. Higher means that less was drawn: an open circuit, or a battery better than read.
 *
 * @param promisedVolts at the posts while cranking
 * @example comparePromise(9.6, 8.2, 12, DEFAULT_RULES).code // => 'lower'
 */
export function comparePromise(
  promisedVolts: number,
  measuredVolts: number,
  systemVolts: 12 | 24,
  rules: HouseRules,
): CrankComparison {
  const differenceVolts = measuredVolts - promisedVolts;
  const allowed = (rules.promiseToleranceVolts * systemVolts) / 12;
  const code =
    Math.abs(differenceVolts) <= allowed ? 'as-promised' : differenceVolts < 0 ? 'lower' : 'higher';
  return { differenceVolts, code };
}
