import { crankCount, holdUpHours } from '../capacitor/bank.js';
import { aloneRescue } from '../circuit/rescue.js';
import { crankPoint } from '../crank/quick.js';
import type { Machine } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';
import { bankAt } from '../sources/cell-bank.js';
import type { CapacitorBoosterKit } from '../sources/kit.js';

/** What a capacitor bank does in the place of a battery. */
export interface BankInstead {
  /** Whole cranks until the control units would drop out. */
  readonly cranks: number;
  /** Hours parked until it stands under the same volts, h. */
  readonly parkedHours: number;
}

/** Seconds of a crank that counts. */
const CRANK_SECONDS = 1.5;

/**
 * A bank as the starting battery: a few hard cranks, and down within days while parked, since a sleeping vehicle never stops drawing.
 * Null where it cannot stand in: 24 V, and machines that wake, which want steady volts for minutes.
 */
export function bankInstead(
  machine: Machine,
  booster: CapacitorBoosterKit,
  tempC: number,
  rules: HouseRules,
): BankInstead | null {
  if (!machine.engine || machine.systemVolts !== 12) return null;
  const bank = bankAt(booster, tempC);
  const alone = aloneRescue([{ openVolts: booster.volts, ohms: bank.esrOhms }], tempC);
  const { starterAmps } = crankPoint(alone, machine.engine);
  const { capacitorMinVolts, parasiticMaxAmps } = rules;
  return {
    cranks: crankCount(bank, booster.volts, capacitorMinVolts, starterAmps, CRANK_SECONDS),
    parkedHours: holdUpHours(bank.farads, booster.volts, capacitorMinVolts, parasiticMaxAmps),
  };
}
