import { BANK_FULL_VOLTS, bankFarads, batteryOhms, type BatteryRating } from '../battery/index.js';
import {
  BANK_FILLERS,
  type BankFiller,
  crankCount,
  holdUpHours,
  rechargeSeconds,
} from '../capacitor/index.js';
import { type Consumer, DRAWS_WATTS } from '../charging/index.js';
import { aloneRescue } from '../circuit/index.js';
import { crankPoint } from '../crank/index.js';
import type { Engine } from '../engine/index.js';
import type { Machine } from '../machine/index.js';
import type { HouseRules } from '../rules/index.js';
import { type Bank, bankAt, type CapacitorBoosterKit } from '../sources/index.js';

/** The work of a capacitor bank in the place of a battery. */
export interface BankInstead {
  /** Whole cranks until the control units would drop out. */
  readonly cranks: number;
  /** Hours parked until it stands under the same volts, h. */
  readonly parkedHours: number;
}

/** Seconds of a crank that counts. */
const CRANK_SECONDS = 1.5;

type BankRules = Pick<HouseRules, 'capacitorMinVolts' | 'parasiticMaxAmps'>;

function bankServes(
  bank: Pick<Bank, 'farads' | 'esrOhms'>,
  fromVolts: number,
  engine: Engine,
  tempC: number,
  { capacitorMinVolts, parasiticMaxAmps }: BankRules,
): BankInstead {
  const alone = aloneRescue([{ openVolts: fromVolts, ohms: bank.esrOhms }], tempC);
  const { starterAmps } = crankPoint(alone, engine);
  return {
    cranks: crankCount(
      { ...bank, maxVolts: fromVolts },
      fromVolts,
      capacitorMinVolts,
      starterAmps,
      CRANK_SECONDS,
    ),
    parkedHours: holdUpHours(bank.farads, fromVolts, capacitorMinVolts, parasiticMaxAmps),
  };
}

/**
 * A bank as the starting battery: a few hard cranks, and down within days while parked, since a sleeping vehicle never stops drawing.
 * Null where it cannot stand in: 24 V, and machines that wake, which want steady volts for minutes.
 */
export function bankInstead(
  machine: Machine,
  booster: CapacitorBoosterKit,
  tempC: number,
  rules: BankRules,
): BankInstead | null {
  if (!machine.engine || machine.systemVolts !== 12) return null;
  return bankServes(bankAt(booster, tempC), booster.volts, machine.engine, tempC, rules);
}

/** Consumers whose fall is shown. */
const TOLD_CONSUMERS = ['headlamps', 'parking-lamps', 'hazard-lamps'] as const satisfies readonly Consumer[];
/** A capacitor bank that is a machine's own battery, as it stands now. */
export interface BankCondition extends BankInstead {
  readonly farads: number;
  readonly esrOhms: number;
  readonly volts: number;
  /** The low cut-off of the house, V: under it nothing more is taken. */
  readonly minVolts: number;
  /** Minutes to the cut-off with this left on, at the amps that it draws at 12 V. */
  readonly minutesOn: Readonly<Record<(typeof TOLD_CONSUMERS)[number], number>>;
  /** Minutes from here to full by what fills it. */
  readonly minutesToFull: Readonly<Record<BankFiller, number>>;
}

/**
 * How many cranks are left in a bank, how long it holds, and how soon it is full again: its charge falls with its volts, and there is
 * little of it.
 *
 * @param volts its rest volts
 * @returns null for any other battery, and for a machine without a starter or with more than one battery
 */
export function bankCondition(
  { batteries, engine }: Pick<Machine, 'batteries' | 'engine'>,
  volts: number,
  tempC: number,
  rules: BankRules,
): BankCondition | null {
  const rating: BatteryRating | undefined = batteries[0]?.rating;
  const farads = rating ? bankFarads(rating) : null;
  if (!rating || farads === null || !engine || batteries.length > 1) return null;
  const esrOhms = batteryOhms(rating, { soc: 1, tempC, ageing: 1 });
  const minVolts = rules.capacitorMinVolts;
  const minutesOn = Object.fromEntries(
    TOLD_CONSUMERS.map((of) => [of, holdUpHours(farads, volts, minVolts, DRAWS_WATTS[of] / 12) * 60]),
  ) as BankCondition['minutesOn'];
  const minutesToFull = Object.fromEntries(
    Object.entries(BANK_FILLERS).map(([by, amps]) => [
      by,
      rechargeSeconds(farads, Math.min(volts, BANK_FULL_VOLTS), BANK_FULL_VOLTS, amps) / 60,
    ]),
  ) as Record<BankFiller, number>;
  return {
    ...bankServes({ farads, esrOhms }, Math.max(0, volts), engine, tempC, rules),
    ...{ farads, esrOhms, volts, minVolts, minutesOn, minutesToFull },
  };
}
