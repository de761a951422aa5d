import type { HouseRules } from '../../rules/index.js';

/** Why a pack's guard lamp stays dark. */
export type GuardDark = 'battery-too-low' | 'clamp-or-pack' | 'read-it-first';

/**
 * A guard lights by what it senses at its clamps. Dark it has found nothing: a battery under what it can sense, a clamp on paint, or the pack
 * itself is empty; which of them, the rest volts tell.
 *
 * @param restVolts of the whole string; null where not read
 * @param systemVolts 12 or 24: a guard senses each battery's worth
 */
export function guardDark(restVolts: number | null, systemVolts: number, rules: HouseRules): GuardDark {
  if (restVolts === null) return 'read-it-first';
  return restVolts < (rules.lithiumPackSenseVolts * systemVolts) / 12 ? 'battery-too-low' : 'clamp-or-pack';
}
