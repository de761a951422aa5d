import type { Problem } from '@voltrek/contracts';
import type { Answer, NAMED_THINGS } from '@voltrek/contracts/words';
import { areLoaded, messagesOf } from './messages-of';
import { REFUSAL_WORDS } from './refusal-words';

const ANSWERS: Readonly<Record<string, unknown>> = messagesOf('answer') satisfies Record<Answer, unknown>;
const THINGS: Record<keyof typeof NAMED_THINGS, string> = messagesOf('namedThing');

/** The places of each answer that has any, in the order of the parameters on the wire. */
const PLACES: Partial<Record<Answer, readonly string[]>> = {
  machineIsThere: ['id'],
  noBackup: ['error'],
  noUsualKit: ['named'],
  thereIsNo: ['what', 'named'],
  notInTheNetworks: ['networks'],
  methodNotHere: ['method', 'allowed'],
  wholeNumber: ['name', 'max'],
  eventDiffers: ['fields'],
  clampsOnMachine: ['callNumber'],
  lockedOut: ['minutes'],
};

const shown = (place: string, value: unknown): string => {
  if (place === 'what' && String(value) in THINGS) return THINGS[value as keyof typeof THINGS];
  return Array.isArray(value) ? value.join(', ') : String(value as string | number | undefined);
};

/** Returns the words of a problem in the language on screen; null where its code is not known here. */
export function answerText({ code, params = [], refusal }: Problem): string | null {
  if (!areLoaded('answer')) return null;
  if (refusal) return REFUSAL_WORDS[refusal];
  const text = ANSWERS[code];
  if (typeof text === 'string') return text;
  const places = PLACES[code as Answer];
  if (typeof text !== 'function' || !places) return null;
  const values = Object.fromEntries(places.map((place, i) => [place, shown(place, params[i])]));
  return (text as (values: Readonly<Record<string, string>>) => string)(values);
}
