import type { MachineClass } from './machine.js';

/**
 * Amps of lamps, control units and pumps of a class, against a car's. A motorcycle draws 5 to 11 A with the key on, where a car draws 15 to
 * 25 A. A 24 V truck has twice the watts at twice the volts. Shares are the trade's rough experience, not counted.
 */
export const DRAW_SHARE: Readonly<Record<MachineClass, number>> = {
  car: 1,
  van: 1,
  truck: 1,
  plant: 0.7,
  motorcycle: 0.4,
  'ride-on': 0.2,
  genset: 0.2,
  boat: 0.4,
  hybrid: 1,
  ev: 1,
};
