import { MEASURE_RANGES, type MeasureKind } from '@voltrek/core/diagnosis';
import { type Range, TYPED_RANGES } from '@voltrek/core/quantities';
import { outOfRange } from '@words/range-words';
import { typedVolts } from '../../../shared/ui/typed-volts';
import { messagesOf } from '@words/messages-of';

const NAMES: Readonly<Record<string, string>> = messagesOf('entry');

/** The figure in what was typed, by how the kind is entered; null for none. */
export function figureOf(kind: MeasureKind, text: string): number | null {
  if (kind.entry === 'volts') return typedVolts(text);
  const plain = text.trim();
  const value = Number(plain);
  return plain === '' || plain === '-' || Number.isNaN(value) ? null : value;
}

/** A gravity as it is read off the float: 1265 is 1.265. */
export function gravityOf(text: string): number {
  const value = Number(text.trim().replace(',', '.'));
  return value > 100 ? value / 1000 : value;
}

/** Why a figure cannot be this measurement, with the allowed range; null when it can. */
export function figureFault(kind: MeasureKind, systemVolts: 12 | 24, value: number): string | null {
  return outOfRange(NAMES[kind.entry] ?? NAMES.volts!, value, rangeOf(kind, systemVolts));
}

/** One battery cannot read like a string: the range follows what is measured. */
function rangeOf(kind: MeasureKind, systemVolts: 12 | 24): Range {
  if (kind.entry === 'drop' || kind.entry === 'ccaAmps' || kind.entry === 'milliamps')
    return MEASURE_RANGES[kind.entry];
  if (kind.check === 'charging')
    return { ...TYPED_RANGES.chargingVolts, max: TYPED_RANGES.chargingVolts.max * (systemVolts / 24) };
  const batteries = kind.reading === 'rest' || kind.id === 'load-test' ? 1 : systemVolts / 12;
  return { min: TYPED_RANGES.volts.min / 2, max: (TYPED_RANGES.volts.max / 2) * batteries, unit: 'V' };
}
