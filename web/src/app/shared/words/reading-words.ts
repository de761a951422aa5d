import { degrees } from './units';
import type { ChargingMeaning, CrankMeaning, RestMeaning } from '@voltrek/core/diagnosis';
import { percentBand, volts } from './figures';

/** A meaning in one line. */
export function restWords({ code, charge, freezeC }: RestMeaning): string {
  const band = percentBand(charge.low, charge.high);
  const freeze = freezeC === null ? '' : `, freezes at ${degrees(freezeC)}`;
  switch (code) {
    case 'charged':
      return `Charged, ${band}${freeze}`;
    case 'part-charged':
      return `Part charged, ${band}${freeze}`;
    case 'low':
      return `Low, ${band}${freeze}. Charge before judging`;
    case 'flat':
      return `Flat, ${band}${freeze}. Charge before judging`;
    case 'dead-cell-or-deep':
      return `Dead cell or deeply discharged${freeze}`;
    case 'maybe-reversed':
      return 'Nearly nothing left: prove polarity again';
    case 'reversed':
      return 'Reads backwards: probes swapped, or the battery is reversed. Stop';
    case 'frozen':
      return `Treat as frozen: it freezes at ${degrees(freezeC ?? 0)}. Stop`;
    case 'bank-spent':
      return `A bank below its cut-off, ${band} of its charge: fill it before the next crank`;
    case 'bank-over':
      return 'Above what its cells stand: let it down through a lamp before anything else';
    case 'surface-charge':
      return 'Surface charge: proves nothing. Burn it off and read again';
  }
}

export function crankWords({ code, limitVolts, mayCondemn }: CrankMeaning): string {
  const limit = `limit ${volts(limitVolts, 1)} here`;
  const weak = mayCondemn ? '' : '. Not charged enough to condemn it';
  switch (code) {
    case 'holds':
      return `Holds up, ${limit}`;
    case 'early-warning':
      return `Early warning, ${limit}`;
    case 'under-limit':
      return `Under the limit, ${limit}${weak}`;
    case 'collapses':
      return `Collapses, ${limit}${weak}`;
  }
}

/** A motorcycle makes its current in a stator, and needs more revs for it. */
export function chargingWords(
  { code, bandVolts: [low, high] }: ChargingMeaning,
  isMotorcycle = false,
): string {
  const band = `band ${low.toFixed(1)} to ${volts(high, 1)}`;
  switch (code) {
    case 'charging':
      return `Charging right, ${band}`;
    case 'high-but-normal':
      return `High for a warm battery, still in band, ${band}`;
    case 'weak':
      return isMotorcycle
        ? `Weak, ${band}: raise to 3,000 rpm, read again`
        : `Weak, ${band}: raise to 2,000 rpm, read again in 5 min`;
    case 'not-charging':
      return isMotorcycle
        ? `Not charging, ${band}: stator, regulator, joint`
        : `Not charging, ${band}: belt, alternator, joint`;
    case 'above-band':
      return `Above the band, ${band}. Read again after 5 min`;
    case 'over-voltage':
      return `Over-voltage, ${band}. Stop the engine and isolate`;
  }
}
