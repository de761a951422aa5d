import { parameter } from '../quantities/index.js';
import { BANK_CHARGE_AMPS } from '../charging/index.js';
import { type Bank, BANK_LEAK_A_DAY, type CellBank } from '../sources/index.js';

/**
 * Energy that a bank gives between two voltages, J: C/2 (V1^2 - V2^2); nothing from one that stands below the lower of them already.
 *
 * @example usableJoules(58, 14.4, 10) // => 3113
 */
export function usableJoules(farads: number, fromVolts: number, toVolts: number): number {
  return Math.max(0, (farads / 2) * (fromVolts ** 2 - toVolts ** 2));
}

/**
 * Fall of a bank's terminal volts under a steady current: by the charge given, and at once by the ESR. Each cell falls I t / C, the
 * bank that many times over; quoting one cell's fall for the bank is the usual slip.
 *
 * @example bankFallVolts({ farads: 58.3, esrOhms: 0.0018, maxVolts: 16.2 }, 200, 3).charge // => 10.3
 */
export function bankFallVolts(
  bank: Bank,
  amps: number,
  seconds: number,
): { readonly charge: number; readonly esr: number } {
  return { charge: (amps * seconds) / bank.farads, esr: amps * bank.esrOhms };
}

/**
 * Whole cranks from `fromVolts` until the terminal volts under load pass below `minVolts`.
 *
 * @example crankCount({ farads: 58.3, esrOhms: 0.0018, maxVolts: 16.2 }, 14.4, 9, 100, 1) // => 3
 */
export function crankCount(
  bank: Bank,
  fromVolts: number,
  minVolts: number,
  amps: number,
  secondsEach: number,
): number {
  const { charge, esr } = bankFallVolts(bank, amps, secondsEach);
  if (charge <= 0) throw new RangeError('a crank must take current for some time');
  return Math.max(0, Math.floor((fromVolts - esr - minVolts) / charge + 1e-9));
}

/**
 * Highest volts the bank may stand at when its cells differ by `tolerance` (0.2 = 20 %): the smallest cell takes most.
 *
 * @example balancedMaxVolts({ cells: 6, cellFarads: 350, cellVolts: 2.7, cellOhms: 0.0003 }, 0.2) // => 11.7
 */
export function balancedMaxVolts(cells: CellBank, tolerance: number): number {
  // One small cell among large ones: charge is common, so volts divide inversely to capacitance.
  const small = 1 / (1 - tolerance);
  const others = (cells.cells - 1) / (1 + tolerance);
  return (cells.cellVolts * (small + others)) / small;
}

/**
 * Seconds to charge a bank at a steady current.
 *
 * @example rechargeSeconds(58, 10, 14.4, 6) // => 42.5
 */
export function rechargeSeconds(farads: number, fromVolts: number, toVolts: number, amps: number): number {
  if (amps <= 0) throw new RangeError('the charging current must be above zero');
  return Math.max(0, (farads * (toVolts - fromVolts)) / amps);
}

/**
 * Hours a parked bank holds above `minVolts` under a steady drain and its own leakage. The leakage is a share of its volts a day:
 * C dV/dt = -I - k C V. So t = ln((V1 + I/kC) / (V2 + I/kC)) / k.
 *
 * @example holdUpHours(58, 14.4, 12, 0.01) // => 3.8
 */
export function holdUpHours(farads: number, fromVolts: number, minVolts: number, drainAmps: number): number {
  if (drainAmps < 0) throw new RangeError('the drain must not be below zero');
  if (fromVolts <= minVolts) return 0;
  const leak = -Math.log(1 - BANK_LEAK_A_DAY) / DAY_S;
  const drain = drainAmps / (leak * farads);
  return Math.log((fromVolts + drain) / (minVolts + drain)) / leak / 3600;
}
const DAY_S = 86_400;

/** Amps at which cells are charged one by one the first time, per farad: slow, so that none passes its limit unseen. */
export const FIRST_CHARGE_AMPS_PER_FARAD = 1 / 1000;

/**
 * The first charge of a bank, one cell after another.
 *
 * @example firstCharge({ cells: 6, cellFarads: 350, cellVolts: 2.7, cellOhms: 0.0003 }).amps // => 0.35
 */
export function firstCharge(cells: CellBank): { readonly amps: number; readonly minutesEach: number } {
  const amps = cells.cellFarads * FIRST_CHARGE_AMPS_PER_FARAD;
  return { amps, minutesEach: rechargeSeconds(cells.cellFarads, 0, cells.cellVolts, amps) / 60 };
}

/**
 * Volts of each cell when a series charge of unequal cells reaches `bankVolts`: inverse to capacitance.
 *
 * @example cellSplit([350, 350], 5.4) // => [2.7, 2.7]
 */
export function cellSplit(cellFarads: readonly number[], bankVolts: number): number[] {
  if (cellFarads.length === 0 || cellFarads.some((farads) => !(farads > 0)))
    throw new RangeError('every cell needs farads above zero');
  const inverse = cellFarads.map((farads) => 1 / farads);
  const sum = inverse.reduce((a, b) => a + b, 0);
  return inverse.map((share) => (bankVolts * share) / sum);
}

/**
 * Currents that fill a bank on the spot, A: an alternator at idle, a booster's converter or a small charger, a panel of 100 W in a clear
 * sky.
 */
export const BANK_FILLERS = {
  alternator: parameter(25, {
    id: 'bank.alternator',
    name: 'an idling alternator fills a bank with',
    low: 10,
    high: 60,
    unit: 'A',
    reason: 'What a small engine spares at idle with its lamps on.',
  }),
  converter: BANK_CHARGE_AMPS,
  solar: parameter(5, {
    id: 'bank.solar',
    name: 'a panel of 100 W gives',
    low: 1,
    high: 6,
    unit: 'A',
    reason: 'In a clear sky; a fifth of it under cloud.',
  }),
} as const;
export type BankFiller = keyof typeof BANK_FILLERS;
