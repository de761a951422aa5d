import { BATTERY_RANGES } from '../battery/index.js';
import { ENGINE_RANGES } from '../engine/index.js';
import { clampOhms, LEAD_RANGES } from '../leads/index.js';
import { outOfRange, type Range, TYPED_RANGES } from '../quantities/index.js';
import { ASSUMED_AGEING, type BatteryBelief } from './casualty-batteries.js';
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
  // A charge given by hand is taken as it is: no band, and no longer over-discharged.
  const { overDischargedVolts: _over, ...rest } = aged;
  return { ...rest, soc, socLow: soc, socHigh: soc };
}
