import {
  bankFarads,
  BATTERY_RANGES,
  batteryOhms,
  FIRING_SECOND_SHARE,
  restVoltsAt,
} from '../battery/index.js';
import type { Rescue } from '../circuit/index.js';
import { type CrankPoint, crankPoint, prepareCrank } from '../crank/index.js';
import { defaultStarter, type Engine } from '../engine/index.js';
import { normal, type Random, parameter } from '../quantities/index.js';
import type { BatteryBelief } from './casualty-batteries.js';

/** What is not known of a crank. Each is drawn once per sample. */
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
/** What is left of that spread where the battery's strength is known. */
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

/** What a draw is made of: the circuit at its most likely values, whose batteries are replaced in each. */
export interface DrawnOf {
  readonly rescue: Rescue;
  readonly batteries: readonly BatteryBelief[];
}

/** Solves the crank of many draws of one rescue: its circuit is made ready once. */
export function drawnCranks(of: DrawnOf, engine: Engine): (draw: Draw) => CrankPoint {
  const starter = defaultStarter(engine);
  const prepared = prepareCrank(drawnRescue(of, MOST_LIKELY));
  return (draw) =>
    crankPoint(
      drawnRescue(of, draw),
      engine,
      // Torque against drag is all that counts, so heavier drag is a weaker starter.
      { ...starter, efficiency: (starter.efficiency * draw.starter) / draw.drag },
      prepared,
      draw.breakaway,
    );
}

/** Speed and volts are asked for together: an engine hard to fire is as a rule one whose electronics want more. */
export function doesStart(point: CrankPoint, firing: number): boolean {
  const volts = point.controlMinVolts * (1 + ((firing - 1) * CONTROL_DEVIATION) / NEEDED_DEVIATION);
  return point.turns && point.rpm >= point.neededRpm * firing && point.starterVolts >= volts;
}

/** One way that what is not known may be. */
export interface Draw {
  /** Standard score of the charge within its band. */
  readonly charge: number;
  /** Standard score of the logarithm of the resistance growth. */
  readonly ageing: number;
  readonly clamps: number;
  readonly drag: number;
  readonly temperature: number;
  readonly starter: number;
  readonly breakaway: number;
  /** Speed and volts that it asks for, against the likely ones. */
  readonly firing: number;
  readonly source: number;
}

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
};

export function drawUnknowns(random: Random): Draw {
  return {
    charge: normal(random, 0, 1),
    ageing: normal(random, 0, 1),
    clamps: Math.exp(normal(random, 0, CLAMP_LOG_DEVIATION)),
    drag: about(random, DRAG_DEVIATION),
    temperature: normal(random, 0, TEMPERATURE_DEVIATION),
    starter: about(random, STARTER_DEVIATION),
    breakaway: about(random, BREAKAWAY_DEVIATION),
    firing: about(random, NEEDED_DEVIATION),
    source: Math.exp(normal(random, 0, SOURCE_LOG_DEVIATION)),
  };
}

const about = (random: Random, deviation: number): number =>
  Math.max(LEAST_DRAWN, normal(random, 1, deviation));

/** The rescue as it would be in this draw, its plates polarised. */
export function drawnRescue({ rescue, batteries }: DrawnOf, draw: Draw): Rescue {
  const tempC = rescue.tempC + draw.temperature;
  const casualty = batteries.map((belief) => {
    // The band is two deviations either way.
    const side = draw.charge < 0 ? belief.soc - belief.socLow : belief.socHigh - belief.soc;
    const soc = Math.min(1, Math.max(0, belief.soc + (draw.charge * side) / 2));
    const { overDischargedVolts } = belief;
    const state = {
      soc,
      tempC,
      ageing: drawnAgeing(belief, draw),
      ...(overDischargedVolts !== undefined && { overDischargedVolts }),
    };
    const openVolts = overDischargedVolts ?? restVoltsAt(belief.rating.chemistry, soc, tempC);
    const ohms = batteryOhms(belief.rating, state);
    const farads = bankFarads(belief.rating);
    return farads === null ? { openVolts, ohms: FIRING_SECOND_SHARE * ohms } : { openVolts, ohms, farads };
  });
  const { source } = rescue;
  return {
    ...rescue,
    tempC,
    casualty,
    source: source && {
      ...source,
      ohms: source.ohms * draw.source * (source.polarises ? FIRING_SECOND_SHARE : 1),
    },
    clampWear: (rescue.clampWear ?? 1) * draw.clamps,
    // How bad a joint is is known no better than how well a clamp bites.
    ...(rescue.joints && {
      joints: {
        plusOhms: rescue.joints.plusOhms * draw.clamps,
        minusOhms: rescue.joints.minusOhms * draw.clamps,
      },
    }),
  };
}

/** Resistance growth in one draw. */
function drawnAgeing({ ageing }: BatteryBelief, draw: Draw): number {
  const { min, max } = BATTERY_RANGES.ageing;
  const spread = ageing === undefined ? AGEING_LOG_DEVIATION : KNOWN_AGEING_LOG_DEVIATION;
  return Math.min(max, Math.max(min, (ageing ?? AGEING_MEDIAN) * Math.exp(draw.ageing * spread)));
}
