import type { BatteryState } from '../battery/index.js';
import type { Crowd } from './belief.js';
import { WORN_FROM } from './draw-hidden.js';
import type { HiddenMachine } from './hidden.js';

export const BATTERY_CONDITIONS = [
  'sound',
  'discharged',
  'worn',
  'dead-cell',
  'broken-link',
  'reversed',
] as const;
/** How one battery stands, by the worst that is true of it; discharged: under half its charge and otherwise sound. */
export type BatteryCondition = (typeof BATTERY_CONDITIONS)[number];

/** Under this charge a battery is called discharged. */
const DISCHARGED_SOC = 0.5;

/** How one battery of a machine stands. */
export function conditionOf({ batteries, hurt, linkOhms }: HiddenMachine, battery: number): BatteryCondition {
  const state: BatteryState = batteries[battery]!;
  if (state.reversed) return 'reversed';
  if ((state.deadCells ?? 0) > 0) return 'dead-cell';
  if (linkOhms > 0 && hurt === battery) return 'broken-link';
  if (state.ageing >= WORN_FROM) return 'worn';
  return state.soc < DISCHARGED_SOC ? 'discharged' : 'sound';
}

/** How likely each condition of one battery is under these shares; they add up to one. */
export function conditionShares(
  { machines }: Crowd,
  shares: Float64Array,
  battery: number,
): Readonly<Record<BatteryCondition, number>> {
  const sums: Record<BatteryCondition, number> = {
    sound: 0,
    discharged: 0,
    worn: 0,
    'dead-cell': 0,
    'broken-link': 0,
    reversed: 0,
  };
  machines.forEach((hidden, i) => {
    sums[conditionOf(hidden, battery)] += shares[i]!;
  });
  return sums;
}
