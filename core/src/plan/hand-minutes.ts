import type { Parameter } from '../quantities/index.js';

/** Minutes of hands for each thing of a rescue: gloves on, in the dark. */
export const HAND_MINUTES = {
  /** A pack or booster placed, clamped on and looked at. */
  pack: 2,
  /** Donor parked, both leads run and clamped, its engine started. */
  donor: 4,
  /** Spare batteries carried over, linked where there are two, and clamped. */
  spares: 4,
  /** A charger placed, its cord run, clamped and plugged in. */
  charger: 4,
  /** Everything off and laid down. */
  part: 1.5,
  /** Every clamp set again, on bright metal, and tugged. */
  reclamp: 1.5,
  /** A joint taken off, brightened and tightened. */
  mend: 5,
  /** A battery changed for a spare, clamps and hold-down. */
  swap: 15,
  /** Another van comes, where nobody has asked it yet. */
  fetch: 30,
  /** Rolled: people told, path looked at, pushed. */
  roll: 5,
  /** The try itself. */
  crank: 0.5,
} as const;

/** Parameters of this file, each with its range and reason. */
export const handMinutesParameters = (): readonly Parameter[] =>
  (
    [
      ['pack', 'a pack is placed and clamped', 1, 4, 'Its leads are fixed to it and short.'],
      ['donor', 'a donor is parked and clamped', 3, 8, 'Four clamps, two vehicles, one engine.'],
      ['spares', 'spare batteries are clamped', 3, 8, 'Carried; two of them are linked first.'],
      ['charger', 'a charger is placed and plugged in', 3, 8, 'Its cord has to be run.'],
      ['part', 'everything is taken off', 1, 3, 'The order in reverse.'],
      ['reclamp', 'clamps are set again', 1, 3, 'Off and on in the same order, one by one.'],
      ['mend', 'a joint is mended', 3, 10, 'Off, bright, on, tight.'],
      ['swap', 'a battery is changed', 10, 30, 'In an easy place; a closed one takes longer.'],
      ['fetch', 'another van comes', 10, 90, 'By the roads of the house; typed where it is known.'],
      ['roll', 'it is rolled', 3, 10, 'Most of it is looking and telling.'],
      ['crank', 'a try', 0.2, 1, 'Ten seconds, and a look.'],
    ] as const
  ).map(([key, name, low, high, reason]) => ({
    id: `hands.${key}`,
    name,
    value: HAND_MINUTES[key],
    low,
    high,
    unit: 'min',
    reason,
  }));
