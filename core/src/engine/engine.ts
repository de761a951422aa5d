import { interpolate, type Knots, type Range, requireInRange, parameter } from '../quantities/index.js';

export const FUELS = ['petrol', 'diesel'] as const;
export type Fuel = (typeof FUELS)[number];

/** An engine and the starter that turns it. */
export interface Engine {
  readonly fuel: Fuel;
  readonly displacementL: number;
  readonly cylinders: number;
  readonly systemVolts: 12 | 24;
}

export const ENGINE_RANGES = {
  displacementL: { min: 0.04, max: 20, unit: 'L' },
} as const satisfies Record<string, Range>;

/** A permanent-magnet starter referred to the crankshaft: V = I R + k w, torque = efficiency k I. */
export interface Starter {
  readonly ohms: number;
  /** Volts per (rad/s) of the crankshaft. */
  readonly kVoltSeconds: number;
  readonly efficiency: number;
  /** Least volts at which the control unit and ignition stay awake. */
  readonly controlMinVolts: number;
}

/** Drag per litre of an ordinary engine: pumping and compression, whatever the oil, N m. */
export const DRY_DRAG_NM_PER_L: Record<Fuel, number> = {
  petrol: parameter(17, {
    id: 'engine.dryPetrol',
    name: 'drag whatever the oil, petrol',
    low: 11,
    high: 22,
    unit: 'N m/L',
    reason: 'Pumping and compression.',
  }),
  diesel: parameter(26, {
    id: 'engine.dryDiesel',
    name: 'the same, diesel',
    low: 18,
    high: 34,
    unit: 'N m/L',
    reason: 'Higher compression.',
  }),
};
/** Drag per litre of an ordinary engine from the oil film at 25 degC and reference speed, N m. */
export const OIL_DRAG_NM_PER_L: Record<Fuel, number> = {
  petrol: parameter(7, {
    id: 'engine.oilPetrol',
    name: 'drag of the oil film, petrol',
    low: 5,
    high: 14,
    unit: 'N m/L',
    reason: 'At 25 degC and 250 rpm.',
  }),
  diesel: parameter(10.5, {
    id: 'engine.oilDiesel',
    name: 'the same, diesel',
    low: 7,
    high: 18,
    unit: 'N m/L',
    reason: 'More bearings, thicker oil.',
  }),
};
/**
 * Drag per litre against an ordinary engine's, by displacement in litres: bearings, rings and what leaks past them grow with surfaces, not
 * with volume. Set so that sound engines draw what they draw in the field at 20 degC (field guide, section 17).
 */
export const DRAG_PER_L_BY_SIZE: Record<Fuel, Knots> = {
  petrol: [
    [0.05, 1.2],
    [0.5, 1.1],
    [1.2, 1],
    [2, 0.9],
    [3, 0.71],
    [5.7, 0.5],
    [8, 0.45],
  ],
  diesel: [
    [0.5, 1.1],
    [2, 1],
    [4, 0.8],
    [8, 0.74],
    [12.8, 0.7],
    [20, 0.64],
  ],
};
/** Crank speed the oil drag is stated at: 250 rpm, rad/s. */
const OIL_REFERENCE_RAD_S = 26.2;
/** Oil drag grows by e per this many degC of cold: cranking drag near four times at -18 degC against 25. */
export const OIL_E_FOLD_C = parameter(31.6, {
  id: 'engine.oilFold',
  name: 'cold that multiplies oil drag by e',
  low: 24,
  high: 40,
  unit: 'degC',
  reason: 'Cranking drag near four times at -18 degC.',
});
/** Torque to break a stopped engine away, against its dry drag: a piston stands on compression. */
export const BREAKAWAY_FACTOR = parameter(1.5, {
  id: 'engine.breakaway',
  name: 'first movement against dry drag',
  low: 1.2,
  high: 2.2,
  unit: 'times',
  reason: 'A piston stands on compression.',
});

/** Share of the oil's drag at reference speed that a stopped engine holds with: the film is thin where it stood. */
const STIFF_OIL_SHARE = 0.8;

/** Starter efficiency from electrical torque to crankshaft, through brushes and gears. */
export const STARTER_EFFICIENCY = parameter(0.75, {
  id: 'starter.efficiency',
  name: 'starter to crankshaft',
  low: 0.6,
  high: 0.85,
  unit: '',
  reason: 'Brushes and gears.',
});
/** Cranking speed at 25 degC that a healthy machine is built for, rpm by displacement in litres. */
const DESIGN_RPM: Record<Fuel, Knots> = {
  petrol: [
    [0.1, 450],
    [0.6, 320],
    [1.6, 255],
    [4, 220],
  ],
  diesel: [
    [0.6, 260],
    [2, 220],
    [6, 190],
    [13, 170],
  ],
};
/** Volts a healthy 12 V battery holds at the starter at its design speed. */
export const DESIGN_VOLTS = parameter(11.7, {
  id: 'starter.designVolts',
  name: 'volts a starter is sized for',
  low: 11.2,
  high: 12,
  unit: 'V',
  reason: 'What a healthy battery holds while cranking.',
});
/** Share of the design volts lost in the starter's own resistance. */
export const DESIGN_OHMIC_SHARE = parameter(0.145, {
  id: 'starter.ohmicShare',
  name: 'share lost in its own resistance',
  low: 0.1,
  high: 0.25,
  unit: '',
  reason: 'At its design speed.',
});

/**
 * Injection and glow control drop out under this while cranking, V by displacement at 12 V: what is built around a small battery must hold
 * where that battery falls to in the cold.
 */
export const CONTROL_MIN_VOLTS: Knots = [
  [0.5, 6],
  [1.1, 6.5],
  [1.4, 7.3],
];
/** The same of 24 V electronics, V. */
export const CONTROL_MIN_VOLTS_24 = 14;

const RAD_S_PER_RPM = Math.PI / 30;
/**
 * Speed in rpm of an angular speed in rad/s.
 *
 * @example rpmFromRadS(20.94) // => 200
 */
export const rpmFromRadS = (radS: number): number => radS / RAD_S_PER_RPM;

/**
 * Mean torque the engine resists turning with, N m, at crank speed `radS` and oil temperature `tempC`.
 *
 * @example engineDragNm({ fuel: 'diesel', displacementL: 2, cylinders: 4, systemVolts: 12 }, 20, -10) // => 108
 */
export function engineDragNm(engine: Engine, radS: number, tempC: number): number {
  const oil =
    OIL_DRAG_NM_PER_L[engine.fuel] *
    Math.exp(-(tempC - 25) / OIL_E_FOLD_C) *
    Math.sqrt(Math.max(radS, 0) / OIL_REFERENCE_RAD_S);
  return draggingL(engine) * (DRY_DRAG_NM_PER_L[engine.fuel] + oil);
}

/** Litres that drag as an ordinary engine's do. */
function draggingL({ fuel, displacementL }: Engine): number {
  return displacementL * interpolate(DRAG_PER_L_BY_SIZE[fuel], displacementL);
}

/** Torque that must be passed before a stopped engine moves at all, N m. */
export function breakawayNm(engine: Engine, tempC: number): number {
  const stiffOil = OIL_DRAG_NM_PER_L[engine.fuel] * Math.exp(-(tempC - 25) / OIL_E_FOLD_C);
  return draggingL(engine) * (BREAKAWAY_FACTOR * DRY_DRAG_NM_PER_L[engine.fuel] + STIFF_OIL_SHARE * stiffOil);
}

/**
 * The starter a maker would fit to this engine: sized so that a healthy battery turns it at the usual speed at 25 degC.
 * A default, to be replaced where the atlas knows better.
 */
export function defaultStarter(engine: Engine): Starter {
  requireInRange('displacement', engine.displacementL, ENGINE_RANGES.displacementL);
  const volts = (DESIGN_VOLTS * engine.systemVolts) / 12;
  const radS = interpolate(DESIGN_RPM[engine.fuel], engine.displacementL) * RAD_S_PER_RPM;
  const kVoltSeconds = (volts * (1 - DESIGN_OHMIC_SHARE)) / radS;
  const amps = engineDragNm(engine, radS, 25) / (STARTER_EFFICIENCY * kVoltSeconds);
  return {
    ohms: (volts * DESIGN_OHMIC_SHARE) / amps,
    kVoltSeconds,
    efficiency: STARTER_EFFICIENCY,
    controlMinVolts:
      engine.systemVolts === 24 ? CONTROL_MIN_VOLTS_24 : interpolate(CONTROL_MIN_VOLTS, engine.displacementL),
  };
}

/** Speed below which the engine will not fire, rpm by temperature: cold fuel and, for diesel, cold compression need more. */
export const NEEDED_RPM: Record<Fuel, Knots> = {
  petrol: [
    [-20, 85],
    [25, 70],
  ],
  diesel: [
    [-20, 100],
    [25, 95],
  ],
};
/** Small engines have little flywheel to carry them over compression, so they need more, rpm by displacement. */
const SMALL_ENGINE_RPM: Knots = [
  [0.1, 110],
  [0.6, 35],
  [1, 0],
];
/** Share of that speed that a diesel of this displacement in litres needs: a large cylinder loses less of its heat to its walls. */
export const DIESEL_NEED_BY_SIZE: Knots = [
  [2, 1],
  [4, 0.87],
  [13, 0.68],
];

/**
 * Least crank speed at which this engine fires at `tempC`, rpm.
 *
 * @example neededRpm({ fuel: 'diesel', displacementL: 2, cylinders: 4, systemVolts: 12 }, -10) // => 99
 */
export function neededRpm(engine: Engine, tempC: number): number {
  const { fuel, displacementL } = engine;
  const share = fuel === 'diesel' ? interpolate(DIESEL_NEED_BY_SIZE, displacementL) : 1;
  return interpolate(NEEDED_RPM[fuel], tempC) * share + interpolate(SMALL_ENGINE_RPM, displacementL);
}

/** Engines whose starters are so small that the short crank limit holds, litres. */
export const SMALL_ENGINE_L = 0.7;
/** Diesels big enough for the long crank limit, litres. */
export const BIG_DIESEL_L = 6;

/** Extra torque of the first movement dies away over about this crank speed, rad/s. */
export const BREAKAWAY_DECAY_RAD_S = 1.5;

/**
 * The parts of drag at one temperature, N m: `still` at any speed and `oil` times the root of speed in rad/s. `grip` is the first movement
 * beyond both.
 */
export function dragTerms(engine: Engine, tempC: number): { still: number; oil: number; grip: number } {
  const still = engineDragNm(engine, 0, tempC);
  return {
    still,
    // Oil drag grows with the root of speed, so its value at one radian a second is its factor.
    oil: engineDragNm(engine, 1, tempC) - still,
    grip: breakawayNm(engine, tempC) - still,
  };
}

/**
 * Torque against a turning crankshaft at one temperature, averaged over compression, with the extra grip of the first movement.
 *
 * @returns N m by crank speed in rad/s; made once, since a simulation asks it thousands of times
 */
export function frictionAt(engine: Engine, tempC: number): (radS: number) => number {
  const { still, oil, grip } = dragTerms(engine, tempC);
  return (radS) => {
    const share = radS / BREAKAWAY_DECAY_RAD_S;
    return still + oil * Math.sqrt(Math.max(radS, 0)) + (share < 6 ? grip * Math.exp(-share * share) : 0);
  };
}

/** Share by which torque swings about its mean as pistons pass compression: fewer cylinders, deeper swing. */
export function compressionRipple(engine: Engine): number {
  return Math.min(0.9, 1.4 / engine.cylinders);
}

/** Turning inertia at the crankshaft per litre, kg m2: flywheel, crank and the geared-up starter. */
export const INERTIA_PER_L: Record<Fuel, number> = {
  petrol: parameter(0.1, {
    id: 'engine.inertiaPetrol',
    name: 'inertia, petrol',
    low: 0.06,
    high: 0.16,
    unit: 'kg m2/L',
    reason: 'Flywheel, crank and the geared-up starter.',
  }),
  diesel: parameter(0.17, {
    id: 'engine.inertiaDiesel',
    name: 'inertia, diesel',
    low: 0.1,
    high: 0.26,
    unit: 'kg m2/L',
    reason: 'A heavier flywheel.',
  }),
};

/**
 * Turning inertia at the crankshaft, kg m2. A default by displacement.
 *
 * @example inertiaKgM2({ fuel: 'diesel', displacementL: 2, cylinders: 4, systemVolts: 12 }) // => 0.34
 */
export function inertiaKgM2(engine: Engine): number {
  return INERTIA_PER_L[engine.fuel] * engine.displacementL;
}

parameter(interpolate(DRAG_PER_L_BY_SIZE.petrol, 5.7), {
  id: 'engine.dragBigPetrol',
  name: 'drag per litre of a 5.7 L petrol engine',
  low: 0.4,
  high: 0.65,
  unit: 'of 1.2 L',
  reason: 'Such engines draw 150 to 250 A at 20 degC.',
});
parameter(interpolate(DRAG_PER_L_BY_SIZE.diesel, 12.8), {
  id: 'engine.dragBigDiesel',
  name: 'drag per litre of a 12.8 L diesel',
  low: 0.6,
  high: 0.9,
  unit: 'of 2 L',
  reason: 'Such engines draw 350 to 600 A of 24 V at 20 degC.',
});
parameter(interpolate(DIESEL_NEED_BY_SIZE, 13), {
  id: 'engine.needBigDiesel',
  name: 'speed that fires a 13 L diesel',
  low: 0.6,
  high: 0.85,
  unit: 'of 2 L',
  reason: 'A large cylinder loses less of its heat to its walls.',
});
parameter(CONTROL_MIN_VOLTS.at(-1)![1], {
  id: 'engine.control12',
  name: 'volts that control units hold to',
  low: 6.5,
  high: 8.5,
  unit: 'V',
  reason: 'Of 12 V; 6 to 6.5 V around small batteries, 14 V of 24.',
});
parameter(compressionRipple({ fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 }), {
  id: 'engine.ripple4',
  name: 'swing of torque, four cylinders',
  low: 0.2,
  high: 0.6,
  unit: '',
  reason: 'Fewer cylinders, deeper swing.',
});
parameter(NEEDED_RPM.petrol.at(-1)![1], {
  id: 'engine.needPetrol',
  name: 'speed that fires at 25 degC, petrol',
  low: 50,
  high: 100,
  unit: 'rpm',
  reason: 'Rises with cold.',
});
parameter(NEEDED_RPM.diesel.at(-1)![1], {
  id: 'engine.needDiesel',
  name: 'the same, diesel with glow plugs',
  low: 80,
  high: 150,
  unit: 'rpm',
  reason: 'Compression must heat the air.',
});
