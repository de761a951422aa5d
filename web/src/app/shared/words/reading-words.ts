import { degrees } from './units';
import type { ChargingMeaning, CrankMeaning, RestMeaning } from '@voltrek/core/diagnosis';
import { percentBand, volts } from './figures';
import { messagesOf } from './messages-of';
import { fixed } from './numbers';

const REST = messagesOf('restMeaning');
const CRANK = messagesOf('crankMeaning');
const CHARGING = messagesOf('chargingMeaning');

/** A meaning in one line. */
export function restWords({ code, charge, freezeC }: RestMeaning): string {
  const band = percentBand(charge.low, charge.high);
  const freezes = freezeC === null ? '' : REST.freezes({ degrees: degrees(freezeC) });
  switch (code) {
    case 'charged':
    case 'part-charged':
    case 'low':
    case 'flat':
      return REST[code]({ band, freezes });
    case 'dead-cell-or-deep':
      return REST[code]({ freezes });
    case 'frozen':
      return REST.frozen({ degrees: degrees(freezeC ?? 0) });
    case 'bank-spent':
      return REST[code]({ band });
    default:
      return REST[code];
  }
}

export function crankWords({ code, limitVolts, mayCondemn }: CrankMeaning): string {
  const limit = volts(limitVolts, 1);
  const weak = mayCondemn ? '' : CRANK.weak;
  return code === 'holds' || code === 'early-warning' ? CRANK[code]({ limit }) : CRANK[code]({ limit, weak });
}

/** A motorcycle makes its current in a stator, and needs more revs for it. */
export function chargingWords(
  { code, bandVolts: [low, high] }: ChargingMeaning,
  isMotorcycle = false,
): string {
  const band = { low: fixed(low, 1), high: volts(high, 1) };
  if (isMotorcycle && (code === 'weak' || code === 'not-charging'))
    return CHARGING[`${code}-motorcycle`](band);
  return CHARGING[code](band);
}
