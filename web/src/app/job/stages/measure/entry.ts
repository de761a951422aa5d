import { type MeasureKind, measureRange } from '@voltrek/core/diagnosis';
import { outOfRange } from '@words/range-words';
import { typedVolts } from '../../../shared/ui/typed-volts';
import { messagesOf } from '@words/messages-of';

const NAMES: Readonly<Record<string, string>> = messagesOf('entry');

/** The figure in what was typed, by how the kind is entered; null for none. */
export function figureOf(kind: MeasureKind, systemVolts: 12 | 24, text: string): number | null {
  if (kind.entry === 'volts') return typedVolts(text, measureRange(kind, systemVolts).max);
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
  return outOfRange(NAMES[kind.entry] ?? NAMES.volts!, value, measureRange(kind, systemVolts));
}
