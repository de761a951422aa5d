import { parameter } from '../quantities/index.js';
import { defaultStarter, neededRpm } from '../engine/index.js';
import { leadHeatCapacity } from '../leads/index.js';
import type { CrankCase } from './crank-case.js';
import { buildNetwork } from './crank-network.js';
import { followCrank, type CrankLists, STEP_SECONDS } from './crank-steps.js';

/** A crank as it went. All lists have one entry a step. */
export interface CrankTrace extends CrankLists {
  readonly stepSeconds: number;
  /** Lowest volts at the posts, anywhere. */
  readonly dipVolts: number;
  readonly neededRpm: number;
  /** When the engine has turned fast enough, on volts enough, for long enough; null when it never does. */
  readonly startsAtSeconds: number | null;
  /** Warming of the lead set over the crank, degC. */
  readonly leadRiseC: number;
  /** State of charge of each casualty battery at the end; of a bank, its volts as a share of its limit. */
  readonly endSoc: readonly number[];
}

/** Speed and volts must hold this long for the engine to fire and run. */
export const HOLD_SECONDS = parameter(1, {
  id: 'fires.hold',
  name: 'speed must hold',
  low: 0.5,
  high: 2,
  unit: 's',
  reason: 'Then it fires and runs.',
});

/** Follows a crank from the closing of the starter contact. Says whether the engine starts, and the cost. */
export function simulateCrank(input: CrankCase): CrankTrace {
  const starter = input.starter ?? defaultStarter(input.engine);
  const network = buildNetwork(input, starter);
  const { tempC, leads } = input.rescue;
  const steps = Math.round(input.seconds / STEP_SECONDS);
  const { engine, compression } = input;
  const { lists, endSocs, endVolts } = followCrank(network, { engine, starter, tempC, compression }, steps);
  const needed = neededRpm(engine, tempC);
  let dipVolts = Infinity;
  for (const volts of lists.postVolts) dipVolts = Math.min(dipVolts, volts);
  let squareAmps = 0;
  for (const amps of lists.sourceAmps) squareAmps += amps * amps;
  return {
    ...lists,
    stepSeconds: STEP_SECONDS,
    dipVolts,
    neededRpm: needed,
    startsAtSeconds: startMoment(lists, needed, starter.controlMinVolts),
    leadRiseC: leads ? (squareAmps * network.leadOhms * STEP_SECONDS) / leadHeatCapacity(leads) : 0,
    endSoc: input.batteries.map((battery, k) =>
      'bank' in battery ? endVolts[k]! / battery.bank.maxVolts : endSocs[k]!,
    ),
  };
}

/**
 * When speed and volts, each as a mean over the firing second, are enough, seconds; null when they never are. A piston on compression slows
 * the crank for a moment and pulls the volts down with it: that is no failed start.
 */
function startMoment(
  { rpm, starterVolts }: CrankLists,
  needed: number,
  controlMinVolts: number,
): number | null {
  const window = Math.round(HOLD_SECONDS / STEP_SECONDS);
  let speeds = 0;
  let volts = 0;
  for (let i = 0; i < rpm.length; i++) {
    speeds += rpm[i]! - (rpm[i - window] ?? 0);
    volts += starterVolts[i]! - (starterVolts[i - window] ?? 0);
    if (i + 1 >= window && speeds >= needed * window && volts >= controlMinVolts * window)
      return i * STEP_SECONDS;
  }
  return null;
}
