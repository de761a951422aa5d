import { type Range, requireInRange, parameter } from '../quantities/index.js';

export const CONDUCTORS = ['copper', 'copper-clad-aluminium'] as const;
export type Conductor = (typeof CONDUCTORS)[number];
export const CLAMP_CONTACTS = ['clean', 'worn', 'poor'] as const;
/** How well a clamp's jaws meet metal. */
export type ClampContact = (typeof CLAMP_CONTACTS)[number];

/** A red and a black jump lead with their four clamps. */
export interface LeadSet {
  readonly sectionMm2: number;
  /** One conductor, end to end, metres. */
  readonly lengthM: number;
  readonly conductor: Conductor;
  readonly contact: ClampContact;
  /** Resistance of the whole set against a new one, as its uses have measured it; left out: as new. */
  readonly ohmsFactor?: number;
}

export const LEAD_RANGES = {
  sectionMm2: { min: 1, max: 240, unit: 'mm2' },
  lengthM: { min: 0.1, max: 30, unit: 'm' },
} as const satisfies Record<string, Range>;

/** Resistivity at 20 degC, ohm mm2 / m: annealed copper; aluminium core with a tenth of copper by volume. */
export const RESISTIVITY: Record<Conductor, number> = {
  copper: parameter(0.01724, {
    id: 'lead.copper',
    name: 'resistivity of copper',
    low: 0.0169,
    high: 0.0178,
    unit: 'ohm mm2/m',
    reason: 'Annealed, at 20 degC.',
  }),
  'copper-clad-aluminium': parameter(0.0265, {
    id: 'lead.clad',
    name: 'resistivity of copper-clad aluminium',
    low: 0.0255,
    high: 0.0285,
    unit: 'ohm mm2/m',
    reason: 'Aluminium core with a tenth of copper.',
  }),
};
/** Change of resistance per degC: near equal for copper and aluminium. */
export const OHMS_PER_DEGC = parameter(0.0039, {
  id: 'lead.perDegC',
  name: 'resistance per degree',
  low: 0.0038,
  high: 0.0041,
  unit: '1/degC',
  reason: 'Nearly equal for both metals.',
});

/** Contact of one clamp, ohms: bright jaws on steel; worn teeth; loose or dirty. */
export const CLAMP_OHMS: Record<ClampContact, number> = {
  clean: parameter(0.0003, {
    id: 'clampOhms',
    name: 'contact of a clean clamp',
    low: 0.0001,
    high: 0.001,
    unit: 'ohm',
    reason: 'Bright jaws on steel; worn teeth and dirt make it ten times as much.',
  }),
  worn: parameter(0.001, {
    id: 'clampOhms.worn',
    name: 'contact of a worn clamp',
    low: 0.0005,
    high: 0.002,
    unit: 'ohm',
    reason: 'Worn teeth still touch in places.',
  }),
  poor: parameter(0.003, {
    id: 'clampOhms.poor',
    name: 'contact of a poor clamp',
    low: 0.002,
    high: 0.01,
    unit: 'ohm',
    reason: 'Loose or dirty: volts are lost as heat here.',
  }),
};

/**
 * Resistance of ONE conductor of the set without its clamps, ohms, at `tempC`.
 *
 * @example conductorOhms({ sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' }, 20) // => 0.0024
 */
export function conductorOhms(set: LeadSet, tempC: number): number {
  requireInRange('section', set.sectionMm2, LEAD_RANGES.sectionMm2);
  requireInRange('length', set.lengthM, LEAD_RANGES.lengthM);
  const at20 = (RESISTIVITY[set.conductor] * set.lengthM) / set.sectionMm2;
  return at20 * (1 + OHMS_PER_DEGC * (tempC - 20)) * (set.ohmsFactor ?? 1);
}

/**
 * Contact of each clamp of this set, ohms.
 *
 * @example clampOhms({ sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' }) // => 0.0003
 */
export const clampOhms = (set: LeadSet): number => CLAMP_OHMS[set.contact] * (set.ohmsFactor ?? 1);

/**
 * The whole loop, ohms: both conductors and all four clamps.
 *
 * @example leadSetOhms({ sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' }, 20) // => 0.0060
 */
export function leadSetOhms(set: LeadSet, tempC: number): number {
  return 2 * conductorOhms(set, tempC) + 4 * clampOhms(set);
}

/** Heat held per volume, J / (m3 K): copper; aluminium core with a tenth of copper. */
export const HEAT_PER_M3: Record<Conductor, number> = {
  copper: parameter(3.45e6, {
    id: 'lead.heat',
    name: 'heat held by copper',
    low: 3.4e6,
    high: 3.5e6,
    unit: 'J/(m3 K)',
    reason: 'Density times specific heat.',
  }),
  'copper-clad-aluminium': 2.53e6,
};

/**
 * Heat that warms both conductors of the set by one degree, J/K: what a crank's losses go into before the air takes any.
 *
 * @example leadHeatCapacity({ sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' }) // => 604
 */
export function leadHeatCapacity(set: LeadSet): number {
  const m3 = 2 * set.lengthM * set.sectionMm2 * 1e-6;
  return m3 * HEAT_PER_M3[set.conductor];
}
