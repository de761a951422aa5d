import { ASSUMED_AGEING, BATTERY_RANGES } from '../battery/index.js';
import type { BatteryBelief } from '../belief/index.js';
import { ENGINE_RANGES } from '../engine/index.js';
import { clampOhms, LEAD_RANGES } from '../leads/index.js';
import { outOfRange, parameter, type Range, TYPED_RANGES } from '../quantities/index.js';
import type { PlanCase } from './plan-case.js';

/** The origin of a figure. */
export const ORIGINS = ['typed', 'meter', 'atlas', 'kit', 'scene', 'rule', 'assumed', 'changed'] as const;
export type Origin = (typeof ORIGINS)[number];

/** Figures of a plan that can be opened and changed, with the range each may have. */
export const PLAN_INPUT_RANGES = {
  soc: { min: 0, max: 1, unit: 'of full' },
  capacityAh: BATTERY_RANGES.capacityAh,
  ccaAmps: BATTERY_RANGES.ccaAmps,
  ageing: { min: 1, max: 5, unit: 'times new' },
  tempC: TYPED_RANGES.ambientC,
  displacementL: ENGINE_RANGES.displacementL,
  sectionMm2: LEAD_RANGES.sectionMm2,
  leadLengthM: LEAD_RANGES.lengthM,
  clampOhms: { min: 0.0001, max: 0.05, unit: 'ohm' },
  sourceVolts: { min: 1, max: 32, unit: 'V' },
  sourceOhms: { min: 0.0005, max: 1000, unit: 'ohm' },
  alternatorAmps: { min: 1, max: 400, unit: 'A' },
  waitMinutes: { min: 0, max: 240, unit: 'min' },
} as const satisfies Record<string, Range>;
export type PlanInputKey = keyof typeof PLAN_INPUT_RANGES;
export const PLAN_INPUT_KEYS = Object.keys(PLAN_INPUT_RANGES) as PlanInputKey[];

// Values that come from the atlas, the kit or the scene. They have no default of their own.
parameter(null, {
  id: 'tempC',
  name: 'temperature of battery and engine',
  low: -35,
  high: 45,
  unit: 'degC',
  reason: 'The air on the scene; metal and acid lag behind it.',
});
parameter(null, {
  id: 'capacityAh',
  name: 'capacity',
  low: 4,
  high: 230,
  unit: 'Ah',
  reason: 'As printed on the battery, 20 h rating.',
});
parameter(null, {
  id: 'ccaAmps',
  name: 'cold-cranking amps',
  low: 60,
  high: 1400,
  unit: 'A',
  reason: 'As printed; it anchors the resistance of the battery.',
});
parameter(null, {
  id: 'displacementL',
  name: 'displacement',
  low: 0.05,
  high: 16,
  unit: 'L',
  reason: 'Sets drag and the starter a maker would fit.',
});
parameter(null, {
  id: 'sectionMm2',
  name: 'lead section',
  low: 6,
  high: 95,
  unit: 'mm2',
  reason: 'Copper decides volts at the starter.',
});
parameter(null, {
  id: 'leadLengthM',
  name: 'lead length, one way',
  low: 0.3,
  high: 8,
  unit: 'm',
  reason: 'Every metre counts twice: there and back.',
});
parameter(null, {
  id: 'sourceVolts',
  name: 'source, open',
  low: 9,
  high: 28,
  unit: 'V',
  reason: 'By its own charge.',
});
parameter(null, {
  id: 'sourceOhms',
  name: 'source, inside',
  low: 0.001,
  high: 0.05,
  unit: 'ohm',
  reason: 'From its rating, charge and cold.',
});
parameter(null, {
  id: 'alternatorAmps',
  name: 'alternator or charger lends',
  low: 5,
  high: 150,
  unit: 'A',
  reason: 'What is left beyond its own lamps, fan and heater.',
});
parameter(null, {
  id: 'waitMinutes',
  name: 'wait before the crank',
  low: 0,
  high: 120,
  unit: 'min',
  reason: 'Computed from the curve of odds; house rule where it is not.',
});

/** One figure the plan counts with. */
export interface PlanInput {
  readonly key: PlanInputKey;
  readonly value: number;
  readonly origin: Origin;
}
export type PlanChanges = Readonly<Partial<Record<PlanInputKey, number>>>;

/** Origins that the case itself cannot know. */
export interface KnownFrom {
  readonly soc: Origin;
  readonly tempC: Origin;
}

/** The figures of a case as it stands, each with where it came from. Of a string, the battery with the least charge. */
export function planInputs(plan: PlanCase, from: KnownFrom): PlanInput[] {
  const { rescue, engine, waitMinutes } = plan;
  const { leads, source } = rescue;
  const battery = weakestOf(plan.beliefs);
  const inputs: (PlanInput | null)[] = [
    { key: 'soc', value: battery.soc, origin: from.soc },
    { key: 'tempC', value: rescue.tempC, origin: from.tempC },
    { key: 'capacityAh', value: battery.rating.capacityAh, origin: 'atlas' },
    { key: 'ccaAmps', value: battery.rating.ccaAmps, origin: 'atlas' },
    { key: 'ageing', value: battery.ageing ?? ASSUMED_AGEING, origin: 'assumed' },
    { key: 'displacementL', value: engine.displacementL, origin: 'atlas' },
    leads && { key: 'sectionMm2', value: leads.sectionMm2, origin: 'kit' },
    leads && { key: 'leadLengthM', value: leads.lengthM, origin: 'kit' },
    leads && { key: 'clampOhms', value: clampOhms(leads) * (rescue.clampWear ?? 1), origin: 'kit' },
    source && { key: 'sourceVolts', value: source.openVolts, origin: 'kit' },
    source && { key: 'sourceOhms', value: source.ohms, origin: 'kit' },
    source?.alternator ? { key: 'alternatorAmps', value: source.alternator.maxAmps, origin: 'kit' } : null,
    source?.alternator ? { key: 'waitMinutes', value: waitMinutes, origin: 'rule' } : null,
  ];
  return inputs.filter((input) => input !== null);
}

function weakestOf(beliefs: readonly BatteryBelief[]): BatteryBelief {
  return beliefs.reduce((a, b) => (b.soc < a.soc ? b : a));
}

/**
 * The case with some figures changed by hand.
 *
 * @throws RangeError naming the figure and its range
 */
export function withChanges(plan: PlanCase, changes: PlanChanges): PlanCase {
  for (const [key, value] of Object.entries(changes) as [PlanInputKey, number][]) {
    const why = outOfRange(key, value, PLAN_INPUT_RANGES[key]);
    if (why) throw new RangeError(why);
  }
  const { rescue } = plan;
  const { leads, source } = rescue;
  const weakest = weakestOf(plan.beliefs);
  const beliefs = plan.beliefs.map((belief) =>
    belief === weakest ? changedBelief(belief, changes) : belief,
  );
  const alternator = source?.alternator && {
    ...source.alternator,
    maxAmps: changes.alternatorAmps ?? source.alternator.maxAmps,
  };
  return {
    ...plan,
    beliefs,
    waitMinutes: changes.waitMinutes ?? plan.waitMinutes,
    engine: { ...plan.engine, displacementL: changes.displacementL ?? plan.engine.displacementL },
    rescue: {
      ...rescue,
      tempC: changes.tempC ?? rescue.tempC,
      leads: leads && {
        ...leads,
        sectionMm2: changes.sectionMm2 ?? leads.sectionMm2,
        lengthM: changes.leadLengthM ?? leads.lengthM,
      },
      ...(leads && changes.clampOhms !== undefined && { clampWear: changes.clampOhms / clampOhms(leads) }),
      source: source && {
        ...source,
        openVolts: changes.sourceVolts ?? source.openVolts,
        ohms: changes.sourceOhms ?? source.ohms,
        ...(alternator && { alternator }),
      },
    },
  };
}

function changedBelief(belief: BatteryBelief, changes: PlanChanges): BatteryBelief {
  const rating = {
    ...belief.rating,
    capacityAh: changes.capacityAh ?? belief.rating.capacityAh,
    ccaAmps: changes.ccaAmps ?? belief.rating.ccaAmps,
  };
  const { ageing } = changes;
  const aged = { ...belief, rating, ...(ageing !== undefined && { ageing }) };
  const { soc } = changes;
  if (soc === undefined) return aged;
  // A charge given by hand is taken as it is: no band, no longer over-discharged, and nothing taken in since.
  const { overDischargedVolts: _over, gained: _gained, ...rest } = aged;
  return { ...rest, soc, socLow: soc, socHigh: soc, isGiven: true };
}
