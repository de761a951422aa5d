import { BIG_DIESEL_L, SMALL_ENGINE_L } from '../../engine/index.js';
import type { Machine } from '../../machine/index.js';
import type { HouseRules } from '../../rules/index.js';

/**
 * Returns the seconds that a try may last: by the engine's starter, and by the source where its peak lasts less. A machine that wakes has no
 * limit.
 *
 * @param source of the option that is joined; null on the machine's own battery
 * @example tryLimitSeconds(car, DEFAULT_RULES, null) // 10
 */
export function tryLimitSeconds(
  machine: Pick<Machine, 'engine'>,
  rules: HouseRules,
  source: { readonly maxSeconds?: number } | null,
): number | null {
  const { engine } = machine;
  if (engine === null) return null;
  return Math.min(engineSeconds(engine, rules), source?.maxSeconds ?? Infinity);
}

function engineSeconds({ displacementL, fuel }: NonNullable<Machine['engine']>, rules: HouseRules): number {
  if (displacementL <= SMALL_ENGINE_L) return rules.crankSecondsMaxSmall;
  const isBigDiesel = fuel === 'diesel' && displacementL >= BIG_DIESEL_L;
  return isBigDiesel ? rules.crankSecondsMaxBigDiesel : rules.crankSecondsMax;
}
