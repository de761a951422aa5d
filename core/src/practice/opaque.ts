import { seededRandom } from '../quantities/index.js';
import { seedOf } from './seed.js';

/** Letters and digits that nobody mistakes for another in an address or over the radio. */
const SIGNS = 'abcdefghijkmnpqrstuvwxyz23456789';
const BITS = 5;
const KEY = 'case';

/** Bytes of a stream that both ways share. It hides, and protects nothing: who writes a program can read a code. */
function stream(length: number): number[] {
  const random = seededRandom(seedOf(`${KEY} ${length}`));
  return Array.from({ length }, () => Math.floor(256 * random()));
}

/** A byte that a mistyped code does not have. */
const checkOf = (bytes: readonly number[]): number =>
  bytes.reduce((sum, byte, i) => sum + byte * (i + 1), 7) & 255;

/**
 * Returns a text as a code that tells nothing to whoever sees it in an address: the fault of a case stands in its text.
 *
 * @param text of one-byte signs
 * @example opaqueOf('order-12').includes('order') // => false
 */
export function opaqueOf(text: string): string {
  const bytes = Array.from(text, (sign) => sign.charCodeAt(0));
  const whole = [...bytes, checkOf(bytes)];
  const hidden = stream(whole.length).map((mask, i) => mask ^ whole[i]!);
  let code = '';
  let held = 0;
  let count = 0;
  for (const byte of hidden) {
    held = ((held << 8) | byte) & 0xffff;
    count += 8;
    for (; count >= BITS; count -= BITS) code += SIGNS.charAt((held >> (count - BITS)) & 31);
  }
  return count > 0 ? code + SIGNS.charAt((held << (BITS - count)) & 31) : code;
}

/**
 * Returns the text of a code; null for one that is mistyped, cut short or none.
 *
 * @example textOf(opaqueOf('order-12')) // => 'order-12'
 */
export function textOf(code: string): string | null {
  const signs = Array.from(code.toLowerCase(), (sign) => SIGNS.indexOf(sign));
  if (signs.includes(-1)) return null;
  const hidden: number[] = [];
  let held = 0;
  let count = 0;
  for (const sign of signs) {
    held = ((held << BITS) | sign) & 0xffff;
    count += BITS;
    if (count >= 8) {
      count -= 8;
      hidden.push((held >> count) & 255);
    }
  }
  if (hidden.length < 2) return null;
  const whole = stream(hidden.length).map((mask, i) => mask ^ hidden[i]!);
  const bytes = whole.slice(0, -1);
  const text = String.fromCharCode(...bytes);
  // The last sign holds bits that carry nothing: one form of a code is the code.
  return checkOf(bytes) === whole.at(-1) && opaqueOf(text) === code.toLowerCase() ? text : null;
}
