import { CURE_MINUTES, type Cure } from '@voltrek/core/belief';
import { vehicleWord } from '@words/figures';
import { fixed } from '@words/numbers';
import { WATCH_PAGE as T } from '@words/screens/watch';
import { degrees } from '@words/units';
import { dateText } from '../shared/model/dates';
import type { Watched } from './watch-store';

/** The coldest night to come, as it is told. */
export interface ColdNight {
  /** The day on which it ends, ISO 8601. */
  readonly day: string;
  readonly lowC: number;
}

/** Odds are never told as certain. */
const MOST_TOLD = 99;

/** Odds as they are told, in 100. */
export const oddsText = (start: number): string => fixed(Math.min(MOST_TOLD, Math.round(100 * start)));

const cureWord = (cure: Cure): string => T.cure[cure];

/** The reason why a vehicle may fail; nothing above the bar. */
export const reasonText = ({ outlook: { reason } }: Watched): string => (reason ? T.reason[reason] : '');

/** The cure with its minutes, and the odds after it; nothing above the bar. */
export const cureText = ({ outlook: { cure } }: Watched): string =>
  cure
    ? T.withCure({
        cure: cureWord(cure.kind),
        minutes: CURE_MINUTES[cure.kind],
        odds: oddsText(cure.start),
      })
    : '';

/** The owner as the list names one. */
export function ownerText({ vehicle: { owner } }: Watched): string {
  if (!owner?.name) return T.noOwner;
  const line = [owner.name, owner.phone].filter(Boolean).join(', ');
  return owner.noLetters ? `${line}; ${T.noLetters}` : line;
}

/** Vehicles of one place, for one round. */
export interface Round {
  readonly place: string;
  readonly watched: readonly Watched[];
  /** Minutes of hands for all cures there. */
  readonly minutes: number;
}

/** Puts vehicles together by the place of their last job: the place with the worst vehicle first. */
export function roundsOf(listed: readonly Watched[]): readonly Round[] {
  const places = [...new Set(listed.map(({ vehicle }) => vehicle.placeName))];
  return places.map((place) => {
    const watched = listed.filter(({ vehicle }) => vehicle.placeName === place);
    const minutes = watched.reduce(
      (sum, { outlook: { cure } }) => sum + (cure ? CURE_MINUTES[cure.kind] : 0),
      0,
    );
    return { place: place || T.noPlace, watched, minutes };
  });
}

/** A letter to one owner: lines of text. */
export interface Letter {
  readonly to: string;
  readonly phone: string;
  readonly lines: readonly string[];
}

/** An owner of so many vehicles reads how all of them stand. */
const FLEET_FROM = 3;

/**
 * Writes a letter to each owner with a vehicle on the list who may be written to. An owner of a fleet is told of every vehicle.
 *
 * @param all every vehicle that was weighed
 * @param listed those under the bar, worst first
 */
export function lettersOf(
  all: readonly Watched[],
  listed: readonly Watched[],
  night: ColdNight,
): readonly Letter[] {
  const owners = new Map(
    listed.flatMap(({ vehicle: { owner } }) =>
      owner?.name && !owner.noLetters ? [[owner.id, owner] as const] : [],
    ),
  );
  return [...owners.values()].map((owner) => {
    const isTheirs = ({ vehicle }: Watched): boolean => vehicle.owner?.id === owner.id;
    const fleet = all.filter(isTheirs);
    const low = listed.filter(isTheirs);
    const fine = fleet.length >= FLEET_FROM ? fleet.filter((one) => !low.includes(one)) : [];
    return {
      to: owner.name!,
      phone: owner.phone ?? '',
      lines: [
        T.letterNight({ day: dateText(night.day, 'weekdayDate'), low: degrees(night.lowC) }),
        ...[...low, ...fine].map(letterLine),
        T.letterEnd,
      ],
    };
  });
}

function letterLine(one: Watched): string {
  const {
    vehicle,
    outlook: { start, reason, cure },
  } = one;
  const named = { model: vehicle.modelName, plate: vehicleWord(vehicle), odds: oddsText(start) };
  return reason && cure
    ? T.letterLine({ ...named, reason: T.reason[reason], cure: cureWord(cure.kind) })
    : T.letterFine(named);
}

/** All letters as one text, for messages. */
export const messagesText = (letters: readonly Letter[]): string =>
  letters.map(({ to, phone, lines }) => [`${to}, ${phone}`, ...lines].join('\n')).join('\n\n');
