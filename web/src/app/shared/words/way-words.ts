import type { Way, WayStep } from '@voltrek/core/plan';
import { messagesOf } from './messages-of';

/** The shares that one may want to be sure of, as per cents. */
export const SURENESS = ['50', '60', '70', '80', '90', '95', '99'] as const;
export type Sureness = (typeof SURENESS)[number];

/** Each of them as it is said. */
export const SURENESS_WORDS: Record<Sureness, string> = messagesOf('sureness');

/** Minutes as they are said: under two hours in minutes. */
export function minutesWords(minutes: number): string {
  return minutes < 120 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(1)} h`;
}

/** Returns the name of a way. @param nameOf the name of an option, or of a piece of kit */
export function wayName(way: Way, nameOf: (id: string) => string): string {
  const bare = bareName(way, nameOf);
  const name = way.vanId === undefined ? bare : `${bare}, from ${nameOf(way.vanId)}`;
  return way.mends ? `Mend the joint, then ${small(name)}` : name;
}

function bareName({ kind, optionId, thenOptionId, id }: Way, nameOf: (id: string) => string): string {
  switch (kind) {
    case 'join':
      return nameOf(optionId!);
    case 'charge-then-join':
      return `${nameOf(optionId!)} charges, then ${small(nameOf(thenOptionId!))}`;
    case 'reclamp':
      return 'Set the clamps again, then crank';
    case 'own':
      return 'Nothing joined: crank it as it is';
    case 'swap':
      return `Fit a spare: ${small(nameOf(id.slice('swap:'.length)))}`;
    case 'roll':
      return 'Rolling start';
  }
}

const small = (name: string): string => name.charAt(0).toLowerCase() + name.slice(1);

/** A step of a way in a few words; what is joined is named only where more than one thing is. */
export function wayStepWords(step: WayStep, way: Way, nameOf: (id: string) => string): string {
  switch (step.kind) {
    case 'rest':
      return `starter rests ${minutesWords(step.minutes)}`;
    case 'fetch':
      return step.minutes > 0
        ? `${nameOf(step.vanId)} comes, ${minutesWords(step.minutes)}`
        : `${nameOf(step.vanId)} is there by then`;
    case 'reclamp':
      return 'clamps off and on again';
    case 'mend':
      return 'mend the joint';
    case 'join':
      return way.thenOptionId ? `clamp on ${small(nameOf(step.optionId))}` : 'clamp on';
    case 'charge':
      return `it charges ${minutesWords(step.minutes)}`;
    case 'fill':
      return `it fills from the weak battery ${minutesWords(step.minutes)}`;
    case 'part':
      return 'all off';
    case 'swap':
      return 'change the battery';
    case 'roll':
      return 'roll it, second gear';
    case 'crank':
      return 'crank';
  }
}
