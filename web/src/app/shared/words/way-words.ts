import type { NoSource } from '@voltrek/core/belief';
import type { Way, WayStep } from '@voltrek/core/plan';
import { CAUSE_WORDS } from './diagnosis-words';
import { inHundred } from './figures';
import { messagesOf } from './messages-of';
import { fixed, withinSentence } from './numbers';

/** The shares that one may want to be sure of, as per cents. */
export const SURENESS = ['50', '60', '70', '80', '90', '95', '99'] as const;
export type Sureness = (typeof SURENESS)[number];

/** Each of them as it is said. */
export const SURENESS_WORDS: Record<Sureness, string> = messagesOf('sureness');

const WAY = messagesOf('way');
const NO_SOURCE = messagesOf('noSource');
const STEP = messagesOf('wayStep');

/** Minutes as they are said: under two hours in minutes. */
export function minutesWords(minutes: number): string {
  return minutes < 120 ? `${fixed(minutes)} min` : `${fixed(minutes / 60, 1)} h`;
}

/** Returns the name of a way. @param nameOf the name of an option, or of a piece of kit */
export function wayName(way: Way, nameOf: (id: string) => string): string {
  const bare = bareName(way, nameOf);
  const name = way.vanId === undefined ? bare : WAY.fromVan({ way: bare, van: nameOf(way.vanId) });
  return way.mends ? WAY.mend({ way: withinSentence(name) }) : name;
}

function bareName({ kind, optionId, thenOptionId, id }: Way, nameOf: (id: string) => string): string {
  switch (kind) {
    case 'join':
      return nameOf(optionId!);
    case 'charge-then-join':
      return WAY.chargeThenJoin({
        first: nameOf(optionId!),
        second: withinSentence(nameOf(thenOptionId!)),
      });
    case 'reclamp':
      return WAY.reclamp;
    case 'own':
      return WAY.own;
    case 'swap':
      return WAY.swap({ spare: withinSentence(nameOf(id.slice('swap:'.length))) });
    case 'roll':
      return WAY.roll;
  }
}

/** A step of a way in a few words; what is joined is named only where more than one thing is. */
export function wayStepWords(step: WayStep, way: Way, nameOf: (id: string) => string): string {
  switch (step.kind) {
    case 'rest':
      return STEP.rest({ time: minutesWords(step.minutes) });
    case 'fetch': {
      const van = nameOf(step.vanId);
      return step.minutes > 0 ? STEP.fetch({ van, time: minutesWords(step.minutes) }) : STEP.fetched({ van });
    }
    case 'join':
      return way.thenOptionId ? STEP.joinNamed({ source: withinSentence(nameOf(step.optionId)) }) : STEP.join;
    case 'charge':
    case 'fill':
      return STEP[step.kind]({ time: minutesWords(step.minutes) });
    default:
      return STEP[step.kind];
  }
}

/** From here on it is said that no source may start it. */
const WORTH_SAYING = 0.05;

/**
 * Returns the line that no source may start it, with the likeliest reason; null where that is next to nothing.
 *
 * @example noSourceWords({ share: 0.07, causes: [{ cause: 'starter', share: 0.6 }] }) // "That no source starts it: 7 in 100. Most likely …"
 */
export function noSourceWords({ share, causes: [first] }: NoSource): string | null {
  return first && share >= WORTH_SAYING
    ? NO_SOURCE.line({ share: inHundred(share), cause: CAUSE_WORDS[first.cause] })
    : null;
}
