import { BATTERY_RANGES } from '../battery/index.js';
import { cranksOf, type DiagnosisProfile, type HiddenMachine, WORN_FROM } from '../diagnosis/index.js';
import type { Hazard, HazardCode } from '../hookup/index.js';

export const BREAKABLE = ['main-fuse', 'alternator', 'control-units', 'battery', 'source'] as const;
/**
 * A break by a slip: the machine's main fuse, its alternator, its control units, a battery that is cooked; a source that trips is only off.
 */
export type Breakable = (typeof BREAKABLE)[number];

/**
 * The part that breaks where a hazard is severe: on a job it may, here it does. Joined the wrong way round, the alternator's diodes carry
 * all that the source gives until the main fuse opens; over its volts, or with its alternator off its battery, electronics go first.
 */
const BROKEN_BY: Readonly<Partial<Record<HazardCode, readonly Breakable[]>>> = {
  reversed: ['main-fuse', 'alternator'],
  'over-voltage': ['control-units'],
  'load-dump': ['alternator', 'control-units'],
  'ev-donor-running': ['control-units'],
};

/** Returns the whole parts that these hazards break. A source that trips needs no severity: it protects itself. */
export function brokenBy(hazards: readonly Hazard[], broken: readonly Breakable[]): Breakable[] {
  const now = hazards.flatMap(({ code, severity }): readonly Breakable[] => {
    if (code === 'source-tripped') return ['source'];
    return severity === 'severe' ? (BROKEN_BY[code] ?? []) : [];
  });
  return BREAKABLE.filter((part) => now.includes(part) && !broken.includes(part));
}

/** Volts that an alternator without its diodes leaves at the posts, per 12 V. */
const DEAD_ALTERNATOR_VOLTS = 12.2;

/** The same machine after that. */
export function withBroken(
  hidden: HiddenMachine,
  broken: readonly Breakable[],
  profile: DiagnosisProfile,
): HiddenMachine {
  if (broken.every((part) => part === 'source' || part === 'battery')) return hidden;
  const worse: HiddenMachine = {
    ...hidden,
    ...(broken.includes('main-fuse') && { open: true }),
    ...(broken.includes('alternator') && {
      chargingVolts: DEAD_ALTERNATOR_VOLTS,
      revvedVolts: DEAD_ALTERNATOR_VOLTS,
    }),
    // Control units that read no key let nothing fire.
    ...(broken.includes('control-units') && hidden.held === 'no' && { held: 'firing' as const }),
  };
  return { ...worse, ...cranksOf(worse, profile) };
}

/** Acid this hot gasses hard and its plates shed: the battery is cooked, degC. */
export const COOKED_FROM_C = 60;
/** Resistance of a cooked battery against what it was. */
const COOKED_GROWTH = 2.5;

/** The same machine with these batteries cooked: worn, whatever they were. */
export function withCooked(
  hidden: HiddenMachine,
  cooked: readonly boolean[],
  profile: DiagnosisProfile,
): HiddenMachine {
  const batteries = hidden.batteries.map((state, i) =>
    cooked[i]
      ? {
          ...state,
          ageing: Math.max(WORN_FROM, Math.min(BATTERY_RANGES.ageing.max, state.ageing * COOKED_GROWTH)),
        }
      : state,
  );
  const worse = { ...hidden, batteries };
  return { ...worse, ...cranksOf(worse, profile) };
}
