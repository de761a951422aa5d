import { parameter } from '../quantities/index.js';
import type { BatteryRating } from '../battery/index.js';
import { DRAW_SHARE, type MachineClass } from '../machine/index.js';
import { DRAWS_WATTS } from './left-on.js';

/** Power that keeps an engine running: ignition or injection, pump, control units, W for a 12 V system. */
export const ENGINE_RUNS_WATTS = parameter(130, {
  id: 'runDown.engine',
  name: 'what keeps an engine running',
  low: 60,
  high: 200,
  unit: 'W for each 12 V',
  reason: 'Ignition or injection, fuel pump, control units.',
});
/** With blower, heated screen and wipers beside the lamps, W for a 12 V system. */
export const ALL_ON_WATTS = parameter(450, {
  id: 'runDown.allOn',
  name: 'heater, screen and wipers beside the lamps',
  low: 250,
  high: 700,
  unit: 'W for each 12 V',
  reason: 'Blower 120 W, heated screen 250 W, wipers 80 W.',
});
/** Charge under which the control units of a running engine drop out, share of full. */
export const RUNS_DOWN_TO_SOC = parameter(0.2, {
  id: 'runDown.floor',
  name: 'charge at which a running engine drops out',
  low: 0.1,
  high: 0.35,
  unit: 'of full',
  reason: 'Under about 11.5 V with this load the control units give up.',
});
/** Drawn in an hour or two, a lead-acid battery gives this share of its 20 h capacity. */
const QUICK_SHARE = 0.8;

/** Minutes that an engine runs from its battery alone, where nothing charges it. */
export interface RunDown {
  /** With lamps and nothing else. */
  readonly lampsMinutes: number;
  /** With heater, screen and lamps. */
  readonly allOnMinutes: number;
}

/**
 * Returns how long an engine runs where nothing charges its battery. Use it to say why a machine without charging is towed.
 *
 * @param soc charge of the battery, 0 to 1
 * @example
 * runDown({ capacityAh: 60 }, 'car', 1).lampsMinutes // 102: an hour and three quarters
 */
export function runDown(
  { capacityAh }: Pick<BatteryRating, 'capacityAh'>,
  machineClass: MachineClass,
  soc: number,
): RunDown {
  const usableAh = Math.max(0, soc - RUNS_DOWN_TO_SOC) * capacityAh * QUICK_SHARE;
  // A 24 V machine has about twice the watts at twice the volts: the same amps.
  const minutesAt = (watts: number): number =>
    Math.floor((usableAh / ((watts / 12) * DRAW_SHARE[machineClass])) * 60);
  return {
    lampsMinutes: minutesAt(ENGINE_RUNS_WATTS + DRAWS_WATTS.headlamps),
    allOnMinutes: minutesAt(ENGINE_RUNS_WATTS + DRAWS_WATTS.headlamps + ALL_ON_WATTS),
  };
}
