import { normal, quantised, type Random, parameter } from '../quantities/index.js';

/** The parts of a crank that no finding tells. Each is drawn once a machine. */
export const UNKNOWNS = [
  'charge',
  'ageing',
  'clamps',
  'drag',
  'temperature',
  'starter',
  'breakaway',
  'firing',
  'source',
  'brushes',
] as const;
export type Unknown = (typeof UNKNOWNS)[number];

/** Resistance growth of a battery of unknown age: most lie between new and twice new. */
export const AGEING_MEDIAN = parameter(1.3, {
  id: 'odds.ageingMedian',
  name: 'median age drawn',
  low: 1.1,
  high: 1.6,
  unit: 'times new',
  reason: 'As assumed of a casualty.',
});
export const AGEING_LOG_DEVIATION = parameter(0.25, {
  id: 'odds.ageing',
  name: 'spread of age, logarithmic',
  low: 0.15,
  high: 0.4,
  unit: '',
  reason: 'Most lie between new and twice new.',
});
/** The rest of that spread where the battery's strength is known. */
export const KNOWN_AGEING_LOG_DEVIATION = parameter(0.1, {
  id: 'odds.ageingKnown',
  name: 'spread of age where the strength is known, logarithmic',
  low: 0.05,
  high: 0.15,
  unit: '',
  reason: 'A tester is good to about a twentieth, a worked-out strength to twice that.',
});
/** Clamp contact varies by a factor: one contact in six is worse than half as much again. */
export const CLAMP_LOG_DEVIATION = parameter(0.4, {
  id: 'odds.clamps',
  name: 'spread of contacts, logarithmic',
  low: 0.2,
  high: 0.7,
  unit: '',
  reason: 'One in six is worse than half as much again.',
});
/** Drag of engines of one size differs by oil and wear. */
export const DRAG_DEVIATION = parameter(0.1, {
  id: 'odds.drag',
  name: 'spread of drag',
  low: 0.05,
  high: 0.2,
  unit: '',
  reason: 'Oil and wear.',
});
/** Starters of one size differ by make, brushes and gears. */
export const STARTER_DEVIATION = parameter(0.07, {
  id: 'odds.starter',
  name: 'spread of the starter',
  low: 0.04,
  high: 0.12,
  unit: '',
  reason: 'Make, brushes and gears.',
});
/** The first movement differs by where the pistons stopped and how long they stood. */
export const BREAKAWAY_DEVIATION = parameter(0.1, {
  id: 'odds.breakaway',
  name: 'spread of the first movement',
  low: 0.05,
  high: 0.2,
  unit: '',
  reason: 'Where the pistons stopped, and how long they stood.',
});
/** The volts that control units hold to differ by make. */
export const CONTROL_DEVIATION = parameter(0.06, {
  id: 'odds.control',
  name: 'spread of the volts that control units hold to',
  low: 0.03,
  high: 0.1,
  unit: '',
  reason: 'Makes differ; drawn together with the speed that fires.',
});
/** A source's resistance differs from what its rating and the cold say, logarithmic. */
export const SOURCE_LOG_DEVIATION = parameter(0.15, {
  id: 'odds.source',
  name: "spread of a source's resistance, logarithmic",
  low: 0.08,
  high: 0.3,
  unit: '',
  reason: 'Its age, its true peak, and the cold in it.',
});
/** Volts that brushes and commutator lose at any current. */
export const BRUSH_VOLTS = parameter(0.9, {
  id: 'odds.brushes',
  name: 'volts lost at the brushes of a starter',
  low: 0.5,
  high: 1.2,
  unit: 'V',
  reason: 'It takes 0.8 to 1 V of the 7 to 9 V of a marginal crank.',
});
/** Brushes differ by wear and make, V. */
const BRUSH_DEVIATION = 0.1;
/** No draw goes below this share of what is likely: nothing turns into its opposite. */
const LEAST_DRAWN = 0.5;
/** Oil and battery lag behind the air, degC. */
export const TEMPERATURE_DEVIATION = parameter(2.5, {
  id: 'odds.temperature',
  name: 'spread of temperature',
  low: 1,
  high: 5,
  unit: 'degC',
  reason: 'Metal and acid lag behind the air.',
});
/** Speed at which an engine fires differs by tune; it widens the threshold rather than the speed. */
export const NEEDED_DEVIATION = parameter(0.08, {
  id: 'odds.needed',
  name: 'spread of the speed that fires',
  low: 0.04,
  high: 0.15,
  unit: '',
  reason: 'Tune and fuel.',
});

/** Of hook-ups, so many have a clamp that bites paint, rust or a loose bolt. */
export const BADLY_SET_SHARE = parameter(0.06, {
  id: 'tries.badlySet',
  name: 'hook-ups with a clamp badly set',
  low: 0.03,
  high: 0.12,
  unit: 'of hook-ups',
  reason: 'Paint, rust, a loose bolt.',
});
/** How much worse than usual such a contact is, times. */
const [BADLY_SET_FROM, BADLY_SET_TO] = [4, 40];

/** One way that what no finding tells may be. */
export interface Draw {
  /** Standard score of the charge within its band, and of what a battery takes in against the usual one. */
  readonly charge: number;
  /** Standard score of the logarithm of the resistance growth, where no machine says it. */
  readonly ageing: number;
  readonly clamps: number;
  readonly drag: number;
  readonly temperature: number;
  readonly starter: number;
  readonly breakaway: number;
  /** Speed and volts that it asks for, against the likely ones. */
  readonly firing: number;
  readonly source: number;
  /** Volts that the brushes of its starter lose, of 12 V. */
  readonly brushes: number;
}

/** Everything as it most likely is. */
export const MOST_LIKELY: Draw = {
  charge: 0,
  ageing: 0,
  clamps: 1,
  drag: 1,
  temperature: 0,
  starter: 1,
  breakaway: 1,
  firing: 1,
  source: 1,
  brushes: BRUSH_VOLTS,
};

/** Draws the parts of one machine that no finding tells. */
export function drawUnknowns(random: Random): Draw {
  return quantised({
    charge: normal(random, 0, 1),
    ageing: normal(random, 0, 1),
    clamps: drawClamps(random),
    drag: about(random, DRAG_DEVIATION),
    temperature: normal(random, 0, TEMPERATURE_DEVIATION),
    starter: about(random, STARTER_DEVIATION),
    breakaway: about(random, BREAKAWAY_DEVIATION),
    firing: about(random, NEEDED_DEVIATION),
    source: Math.exp(normal(random, 0, SOURCE_LOG_DEVIATION)),
    brushes: Math.max(0, normal(random, BRUSH_VOLTS, BRUSH_DEVIATION)),
  });
}

/** Contact of the clamps as hands set them once, against their kind's usual: now and then one bites paint. */
export function drawClamps(random: Random): number {
  const isBad = random() < BADLY_SET_SHARE;
  const usual = Math.exp(normal(random, 0, CLAMP_LOG_DEVIATION));
  return Math.fround(isBad ? BADLY_SET_FROM * (BADLY_SET_TO / BADLY_SET_FROM) ** random() : usual);
}

const about = (random: Random, deviation: number): number =>
  Math.max(LEAST_DRAWN, normal(random, 1, deviation));
