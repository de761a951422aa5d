import { parameter } from '../quantities/index.js';

const minutes = (
  key: string,
  value: number,
  low: number,
  high: number,
  name: string,
  reason: string,
): number => parameter(value, { id: `hands.${key}`, name, low, high, unit: 'min', reason });

/** Minutes of hands for each thing of a rescue: gloves on, in the dark. */
export const HAND_MINUTES = {
  /** A pack or booster placed, clamped on and looked at. */
  pack: minutes('pack', 2, 1, 4, 'a pack is placed and clamped', 'Its leads are fixed to it and short.'),
  /** Donor parked, both leads run and clamped, its engine started. */
  donor: minutes('donor', 4, 3, 8, 'a donor is parked and clamped', 'Four clamps, two vehicles, one engine.'),
  /** Spare batteries carried over, linked where there are two, and clamped. */
  spares: minutes('spares', 4, 3, 8, 'spare batteries are clamped', 'Carried; two of them are linked first.'),
  /** A charger placed, its cord run, clamped and plugged in. */
  charger: minutes('charger', 4, 3, 8, 'a charger is placed and plugged in', 'Its cord has to be run.'),
  /** Everything off and laid down. */
  part: minutes('part', 1.5, 1, 3, 'everything is taken off', 'The order in reverse.'),
  /** Every clamp set again, on bright metal, and tugged. */
  reclamp: minutes('reclamp', 1.5, 1, 3, 'clamps are set again', 'Off and on in the same order, one by one.'),
  /** A joint taken off, brightened and tightened. */
  mend: minutes('mend', 5, 3, 10, 'a joint is mended', 'Off, bright, on, tight.'),
  /** A battery changed for a spare, clamps and hold-down. */
  swap: minutes('swap', 15, 10, 30, 'a battery is changed', 'In an easy place; a closed one takes longer.'),
  /** Another van comes, where nobody has asked it yet. */
  fetch: minutes(
    'fetch',
    30,
    10,
    90,
    'another van comes',
    'By the roads of the house; typed where it is known.',
  ),
  /** Rolled: people briefed, path looked at, pushed. */
  roll: minutes('roll', 5, 3, 10, 'it is rolled', 'Most of it is looking and telling.'),
  /** The try itself. */
  crank: minutes('crank', 0.5, 0.2, 1, 'a try', 'Ten seconds, and a look.'),
} as const;
