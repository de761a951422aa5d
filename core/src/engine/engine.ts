import type { Parameter } from '../quantities/parameter.js';
import { interpolate, type Knots } from '../quantities/interpolate.js';
import { type Range, requireInRange } from '../quantities/range.js';

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

/** Drag per litre: pumping and compression, whatever the oil, N m. */
export const DRY_DRAG_NM_PER_L: Record<Fuel, number> = { petrol: 16, diesel: 26 };
/** Drag per litre from the oil film at 25 degC and reference speed, N m. */
export const OIL_DRAG_NM_PER_L: Record<Fuel, number> = { petrol: 9, diesel: 12 };
/** Crank speed the oil drag is stated at: 250 rpm, rad/s. */
const OIL_REFERENCE_RAD_S = 26.2;
/** Oil drag grows by e per this many degC of cold: cranking drag near four times at -18 degC against 25. */
export const OIL_E_FOLD_C = 31.6;
/** Torque to break a stopped engine away, against its dry drag: a piston stands on compression. */
export const BREAKAWAY_FACTOR = 1.5;

/** Starter efficiency from electrical torque to crankshaft, through brushes and gears. */
export const STARTER_EFFICIENCY = 0.75;
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
export const DESIGN_VOLTS = 11.7;
/** Share of the design volts lost in the starter's own resistance. */
export const DESIGN_OHMIC_SHARE = 0.145;

const RAD_S_PER_RPM = Math.PI / 30;
/** Speed in rpm of an angular speed in rad/s. */
export const rpmFromRadS = (radS: number): number => radS / RAD_S_PER_RPM;

/** Mean torque the engine resists turning with, N m, at crank speed `radS` and oil temperature `tempC`. */
export function engineDragNm(engine: Engine, radS: number, tempC: number): number {
  const oil =
    OIL_DRAG_NM_PER_L[engine.fuel] *
    Math.exp(-(tempC - 25) / OIL_E_FOLD_C) *
    Math.sqrt(Math.max(radS, 0) / OIL_REFERENCE_RAD_S);
  return engine.displacementL * (DRY_DRAG_NM_PER_L[engine.fuel] + oil);
}

/** Torque that must be passed before a stopped engine moves at all, N m. */
export function breakawayNm(engine: Engine, tempC: number): number {
  const stiffOil = OIL_DRAG_NM_PER_L[engine.fuel] * Math.exp(-(tempC - 25) / OIL_E_FOLD_C);
  return engine.displacementL * (BREAKAWAY_FACTOR * DRY_DRAG_NM_PER_L[engine.fuel] + stiffOil);
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
    // Fuel injection and glow control reset near 8 V on a 12 V system; 24 V electronics hold to about 14 V.
    controlMinVolts: engine.systemVolts === 24 ? 14 : 8,
  };
}

/** Speed below which the engine will not fire, rpm by temperature: cold fuel and, for diesel, cold compression need more. */
export const NEEDED_RPM: Record<Fuel, Knots> = {
  petrol: [
    [-20, 95],
    [25, 70],
  ],
  diesel: [
    [-20, 130],
    [25, 100],
  ],
};
/** Small engines have little flywheel to carry them over compression, so they need more, rpm by displacement. */
const SMALL_ENGINE_RPM: Knots = [
  [0.1, 130],
  [0.6, 60],
  [1, 0],
];

/** Least crank speed at which this engine fires at `tempC`, rpm. */
export function neededRpm(engine: Engine, tempC: number): number {
  return interpolate(NEEDED_RPM[engine.fuel], tempC) + interpolate(SMALL_ENGINE_RPM, engine.displacementL);
}

/** Engines whose starters are so small that the short crank limit holds, litres. */
export const SMALL_ENGINE_L = 0.7;
/** Diesels big enough for the long crank limit, litres. */
export const BIG_DIESEL_L = 6;

/** Extra torque of the first movement dies away over about this crank speed, rad/s. */
export const BREAKAWAY_DECAY_RAD_S = 1.5;

/**
 * What drag is made of at one temperature, N m: `still` at any speed, `oil` times the root of speed in rad/s, and the `grip` of the
 * first movement beyond the first two.
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
export const INERTIA_PER_L: Record<Fuel, number> = { petrol: 0.1, diesel: 0.17 };

/** Turning inertia at the crankshaft, kg m2. A default by displacement. */
export function inertiaKgM2(engine: Engine): number {
  return INERTIA_PER_L[engine.fuel] * engine.displacementL;
}

/** What of this file may be questioned. */
export const engineParameters = (): readonly Parameter[] => [
  {
    id: 'engine.dryPetrol',
    name: 'drag whatever the oil, petrol',
    value: DRY_DRAG_NM_PER_L.petrol,
    low: 11,
    high: 22,
    unit: 'N m/L',
    reason: 'Pumping and compression.',
  },
  {
    id: 'engine.dryDiesel',
    name: 'the same, diesel',
    value: DRY_DRAG_NM_PER_L.diesel,
    low: 18,
    high: 34,
    unit: 'N m/L',
    reason: 'Higher compression.',
  },
  {
    id: 'engine.oilPetrol',
    name: 'drag of the oil film, petrol',
    value: OIL_DRAG_NM_PER_L.petrol,
    low: 5,
    high: 14,
    unit: 'N m/L',
    reason: 'At 25 degC and 250 rpm.',
  },
  {
    id: 'engine.oilDiesel',
    name: 'the same, diesel',
    value: OIL_DRAG_NM_PER_L.diesel,
    low: 7,
    high: 18,
    unit: 'N m/L',
    reason: 'More bearings, thicker oil.',
  },
  {
    id: 'engine.oilFold',
    name: 'cold that multiplies oil drag by e',
    value: OIL_E_FOLD_C,
    low: 24,
    high: 40,
    unit: 'degC',
    reason: 'Cranking drag near four times at -18 degC.',
  },
  {
    id: 'engine.breakaway',
    name: 'first movement against dry drag',
    value: BREAKAWAY_FACTOR,
    low: 1.2,
    high: 2.2,
    unit: 'times',
    reason: 'A piston stands on compression.',
  },
  {
    id: 'engine.inertiaPetrol',
    name: 'inertia, petrol',
    value: INERTIA_PER_L.petrol,
    low: 0.06,
    high: 0.16,
    unit: 'kg m2/L',
    reason: 'Flywheel, crank and the geared-up starter.',
  },
  {
    id: 'engine.inertiaDiesel',
    name: 'inertia, diesel',
    value: INERTIA_PER_L.diesel,
    low: 0.1,
    high: 0.26,
    unit: 'kg m2/L',
    reason: 'A heavier flywheel.',
  },
  {
    id: 'engine.ripple4',
    name: 'swing of torque, four cylinders',
    value: compressionRipple({ fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 }),
    low: 0.2,
    high: 0.6,
    unit: '',
    reason: 'Fewer cylinders, deeper swing.',
  },
  {
    id: 'engine.needPetrol',
    name: 'speed that fires at 25 degC, petrol',
    value: NEEDED_RPM.petrol.at(-1)![1],
    low: 50,
    high: 100,
    unit: 'rpm',
    reason: 'Rises with cold.',
  },
  {
    id: 'engine.needDiesel',
    name: 'the same, diesel with glow plugs',
    value: NEEDED_RPM.diesel.at(-1)![1],
    low: 80,
    high: 150,
    unit: 'rpm',
    reason: 'Compression must heat the air.',
  },
  {
    id: 'starter.efficiency',
    name: 'starter to crankshaft',
    value: STARTER_EFFICIENCY,
    low: 0.6,
    high: 0.85,
    unit: '',
    reason: 'Brushes and gears.',
  },
  {
    id: 'starter.designVolts',
    name: 'volts a starter is sized for',
    value: DESIGN_VOLTS,
    low: 11.2,
    high: 12,
    unit: 'V',
    reason: 'What a healthy battery holds while cranking.',
  },
  {
    id: 'starter.ohmicShare',
    name: 'share lost in its own resistance',
    value: DESIGN_OHMIC_SHARE,
    low: 0.1,
    high: 0.25,
    unit: '',
    reason: 'At its design speed.',
  },
];
