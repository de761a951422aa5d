import type { GuardDark } from '@voltrek/core/hookup';

/** Why a guard lamp stays dark, and the way out. */
export const GUARD_DARK_WORDS: Record<GuardDark, string> = {
  'battery-too-low':
    'That is under what a guard can sense. Lift it first with a charger that can, or take another source. Its override only with polarity proved by the meter.',
  'clamp-or-pack':
    'That is enough for a guard: so a clamp sits on paint or dirt, or the pack is empty. Move the clamps to bright metal, then look at its charge lamp.',
  'read-it-first':
    'Read the rest volts at the clamps: they tell whether it is the battery, a clamp or the pack.',
};
