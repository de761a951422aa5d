import { parameter } from '../quantities/index.js';
import { defaultStarter, type Engine } from '../engine/index.js';
import { leadHeatCapacity, type LeadSet, leadSetOhms } from '../leads/index.js';
import type { HouseRules } from '../rules/index.js';

/** A try that is over, for what it heated. */
export interface Try {
  readonly seconds: number;
  /** Rest between its end and now, seconds. */
  readonly agoSeconds: number;
}

/** The heat that a crank puts through starter and leads. */
export interface CrankHeat {
  readonly engine: Engine;
  readonly starterAmps: number;
  /** Null when nothing is joined: the leads stay cold. */
  readonly leads: LeadSet | null;
  /** Through the leads. */
  readonly leadAmps: number;
  readonly tempC: number;
}

/** Heat that a starter's windings hold, J/K per litre of engine: starters grow with the engine they turn. */
export const WINDING_J_PER_K_PER_L = parameter(140, {
  id: 'rest.winding',
  name: 'heat held by starter windings',
  low: 80,
  high: 250,
  unit: 'J/K per litre',
  reason: 'About a third of a kilogram of copper for each litre that the starter turns.',
});
/** Windings give their heat to the starter's body with this time constant, seconds. */
export const WINDING_COOLS_S = parameter(150, {
  id: 'rest.windingCools',
  name: 'time constant of windings cooling',
  low: 60,
  high: 300,
  unit: 's',
  reason: 'Into the starter body, which stays cool far longer than they do.',
});
/** Heat that leaves a lead in still air, W/(m2 K). */
export const LEAD_COOLS_W = parameter(15, {
  id: 'rest.leadCools',
  name: 'heat a lead gives to still air',
  low: 8,
  high: 25,
  unit: 'W/(m2 K)',
  reason: 'Free convection and radiation; wind only helps.',
});
/** Insulation adds this much to a conductor's diameter, m. */
const INSULATION_M = 0.004;

/** Warming of the starter's windings in one try, degC: what its resistance burns, none lost meanwhile. */
export function starterRiseC(heat: Pick<CrankHeat, 'engine' | 'starterAmps'>, seconds: number): number {
  const { ohms } = defaultStarter(heat.engine);
  const joules = heat.starterAmps ** 2 * ohms * seconds;
  return joules / (WINDING_J_PER_K_PER_L * heat.engine.displacementL);
}

/**
 * Warming of the lead set in one try, degC.
 *
 * @example leadTryRiseC({ sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' }, 300, 5, 20) // => 4.5
 */
export function leadTryRiseC(leads: LeadSet, amps: number, seconds: number, tempC: number): number {
  return (amps ** 2 * leadSetOhms(leads, tempC) * seconds) / leadHeatCapacity(leads);
}

/**
 * Time constant of a lead cooling in still air, seconds: heat held over heat given off, both per metre.
 *
 * @example leadCoolsSeconds({ sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' }) // => 190
 */
export function leadCoolsSeconds(leads: LeadSet): number {
  const perMetre = leadHeatCapacity(leads) / (2 * leads.lengthM);
  const diameter = 2 * Math.sqrt((leads.sectionMm2 * 1e-6) / Math.PI) + INSULATION_M;
  return perMetre / (LEAD_COOLS_W * Math.PI * diameter);
}

/** How warm something is after some tries that each warmed it, cooling in between. */
function warmth(riseOf: (seconds: number) => number, tries: readonly Try[], coolsSeconds: number): number {
  return tries.reduce(
    (sum, { seconds, agoSeconds }) => sum + riseOf(seconds) * Math.exp(-agoSeconds / coolsSeconds),
    0,
  );
}

/** Seconds until something has cooled so far that one more try leaves it within its limit; as if cold first when it never could. */
function restFor(nowC: number, nextRiseC: number, limitC: number, coolsSeconds: number): number {
  const room = Math.max(limitC - nextRiseC, limitC * LEAST_ROOM_SHARE);
  return nowC <= room ? 0 : coolsSeconds * Math.log(nowC / room);
}
/** A try that goes past the limit alone is followed by rest until this share of it is left. */
const LEAST_ROOM_SHARE = 0.1;

export interface RestNeed {
  readonly seconds: number;
  readonly decidedBy: 'rule' | 'leads' | 'starter';
  /** Over the air, now. */
  readonly leadRiseC: number;
  readonly starterRiseC: number;
}

/**
 * How long starter and leads rest before another try as long as the longest so far: the house's least, or until both have cooled enough.
 *
 * @param tries that are over, the last one first or last; their heat adds up
 */
export function restNeed(heat: CrankHeat, tries: readonly Try[], rules: HouseRules): RestNeed {
  const next = Math.max(0, ...tries.map((t) => t.seconds));
  const starter = (seconds: number): number => starterRiseC(heat, seconds);
  const lead = (seconds: number): number =>
    heat.leads ? leadTryRiseC(heat.leads, heat.leadAmps, seconds, heat.tempC) : 0;
  const coolsSeconds = heat.leads ? leadCoolsSeconds(heat.leads) : 1;
  const starterC = warmth(starter, tries, WINDING_COOLS_S);
  const leadC = warmth(lead, tries, coolsSeconds);
  const waits = {
    rule: rules.crankRestSeconds,
    leads: restFor(leadC, lead(next), rules.leadRestRiseC, coolsSeconds),
    starter: restFor(starterC, starter(next), rules.starterRestRiseC, WINDING_COOLS_S),
  };
  const decidedBy = (['rule', 'leads', 'starter'] as const).reduce((a, b) => (waits[b] > waits[a] ? b : a));
  return {
    seconds: Math.ceil(waits[decidedBy]),
    decidedBy,
    leadRiseC: leadC,
    starterRiseC: starterC,
  };
}
