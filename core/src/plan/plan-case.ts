import type { Rescue } from '../circuit/index.js';
import type { Engine } from '../engine/index.js';
import {
  type BatteryBelief,
  beliefsWhileJoined,
  type CrankMoment,
  modelOf,
  stateOf,
} from '../belief/index.js';
import { type CrankCase, type CrankTrace, simulateCrank } from '../crank/index.js';

/** The input of one plan's figures: the rescue joined, the belief of the batteries, the engine, and the wait before the crank. */
export interface PlanCase {
  /** Clamps on, source on, nothing cranking. */
  readonly rescue: Rescue;
  readonly beliefs: readonly BatteryBelief[];
  readonly engine: Engine;
  /** Charging before the crank. */
  readonly waitMinutes: number;
  /** The source must be off and away before the crank. */
  readonly chargeOnly: boolean;
  /** Its joints are mended first. */
  readonly isMended?: boolean;
}

/** The case in the moment of its crank. */
export function afterWait(plan: PlanCase): CrankMoment {
  const minutes = Math.round(plan.waitMinutes);
  const { alternator } = plan.rescue.source ?? {};
  const charged =
    minutes > 0 && alternator
      ? beliefsWhileJoined(plan.rescue, plan.beliefs, minutes)[minutes]!
      : plan.beliefs;
  return momentOf(plan, charged);
}

/** The moment of the crank, with the batteries believed so. */
export function momentOf(plan: PlanCase, beliefs: readonly BatteryBelief[]): CrankMoment {
  const { rescue } = plan;
  const casualty = beliefs.map((belief) => modelOf(belief, rescue.tempC));
  if (!plan.chargeOnly)
    return { rescue: { ...rescue, casualty }, beliefs, ...(plan.isMended && { isMended: true }) };
  const clamps = { redCasualty: null, redSource: null, blackSource: null, blackCasualty: null };
  return {
    rescue: { ...rescue, casualty, source: null, leads: null, clamps },
    beliefs,
    ...(plan.isMended && { isMended: true }),
  };
}

/** The likely crank in time. */
export function traceOf(plan: PlanCase, seconds: number): CrankTrace {
  return simulateCrank(crankCaseOf(plan, seconds));
}

/** The likely crank as data, for the simulation and for the netlist. */
export function crankCaseOf(plan: PlanCase, seconds: number): CrankCase {
  const { rescue, beliefs } = afterWait(plan);
  return {
    rescue,
    batteries: beliefs.map((b) => ({ rating: b.rating, state: stateOf(b, rescue.tempC) })),
    engine: plan.engine,
    seconds,
  };
}
