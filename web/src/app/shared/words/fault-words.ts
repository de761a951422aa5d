import type { Fault } from '@voltrek/contracts';
import type { FaultCode, LISTS } from '@voltrek/contracts/words';
import { areLoaded, messagesOf } from './messages-of';
import type { Value } from './message-types';

const T: Readonly<Record<string, unknown>> = messagesOf('fault') satisfies Record<FaultCode, unknown>;
const KINDS: Readonly<Record<string, string>> = messagesOf('valueKind');
const FILES: Readonly<Record<string, string>> = messagesOf('faultList') satisfies Record<
  keyof typeof LISTS,
  string
>;

/**
 * Returns a fault of a field, a row or a file in the language on screen.
 *
 * @param label what the field is called on screen; left out: its path
 */
export function faultText({ code, path, params, message }: Fault, label = path): string {
  if (!areLoaded('fault')) return message;
  const text = T[code];
  // A newer server may know a code that this device does not.
  if (text === undefined) return message;
  const { kind, list } = params;
  const values = {
    ...params,
    path: label,
    ...(kind !== undefined && { kind: KINDS[kind] ?? kind }),
    ...(list !== undefined && { list: FILES[list] ?? list }),
  };
  return typeof text === 'function'
    ? (text as (values: Readonly<Record<string, Value>>) => string)(values)
    : (text as string);
}

/** Returns a fault with its path, for a list in which no field stands beside it. */
export function faultLine(fault: Fault): string {
  const text = faultText(fault);
  return text.includes(fault.path) ? text : `${fault.path}: ${text}`;
}
