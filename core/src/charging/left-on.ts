import { parameter } from '../quantities/index.js';
import type { BatteryRating } from '../battery/index.js';
import { DRAW_SHARE, type Machine } from '../machine/index.js';

export const CONSUMERS = [
  'parking-lamps',
  'headlamps',
  'inside-lamp',
  'hazard-lamps',
  'ignition',
  'radio',
  'fan',
  'socket',
] as const;
/** Consumers that get left on. */
export type Consumer = (typeof CONSUMERS)[number];

/** The power of each, W: a car with filament lamps. */
export const DRAWS_WATTS: Readonly<Record<Consumer, number>> = {
  'parking-lamps': 30,
  headlamps: parameter(140, {
    id: 'leftOn.headlamps',
    name: 'headlamps left on',
    low: 40,
    high: 180,
    unit: 'W',
    reason: 'Two of 55 W with tail, plate and panel lamps; a third of it with diodes.',
  }),
  'inside-lamp': 12,
  'hazard-lamps': 50,
  ignition: parameter(70, {
    id: 'leftOn.ignition',
    name: 'ignition left on',
    low: 30,
    high: 150,
    unit: 'W',
    reason: 'Control units, coil or pump relay, panel.',
  }),
  radio: 25,
  fan: 120,
  socket: 40,
};
/** Charge that a battery in daily use has when it is parked, share of its capacity. */
const PARKED_SOC = parameter(0.85, {
  id: 'leftOn.parkedSoc',
  name: 'charge of a battery in daily use when it is parked',
  low: 0.7,
  high: 1,
  unit: 'share',
  reason: 'Short trips leave it lower; a long one nearly full.',
});

/** The charge that a consumer left on has taken. */
export interface LeftOn {
  readonly takenAh: number;
  /** Charge left of the battery, 0 to 1. */
  readonly socLeft: number;
  /** Hours after which it is empty and begins to suffer. */
  readonly emptyAfterHours: number;
}

/**
 * Returns the charge that a consumer took while it was left on. The battery was parked as batteries in daily use are. Lamps dim as volts
 * fall, so near empty this is the most it can have taken.
 *
 * @param hours since it was parked
 * @example
 * leftOn({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }, { systemVolts: 12, machineClass: 'car' }, 'headlamps', 3).socLeft; // about a quarter
 */
export function leftOn(
  { capacityAh }: Pick<BatteryRating, 'capacityAh'>,
  { systemVolts, machineClass }: Pick<Machine, 'systemVolts' | 'machineClass'>,
  consumer: Consumer,
  hours: number,
): LeftOn {
  const amps = (DRAWS_WATTS[consumer] / systemVolts) * DRAW_SHARE[machineClass];
  const thereAh = PARKED_SOC * capacityAh;
  const takenAh = Math.min(amps * hours, thereAh);
  return { takenAh, socLeft: PARKED_SOC - takenAh / capacityAh, emptyAfterHours: thereAh / amps };
}
