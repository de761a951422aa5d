import { createServer, type Server } from 'node:http';
import { DAY_MS, seededRandom } from '@voltrek/core/quantities';

/** The weather service's answer for a place. */
export interface Observation {
  readonly place: string;
  readonly at: string;
  readonly tempC: number;
  /** The coldest of the last twelve hours. */
  readonly lowC: number;
  readonly windMs: number;
  readonly sky: 'clear' | 'cloud' | 'snow' | 'sleet';
}

/** The lows of the nights to come at a place. */
export interface NightsAhead {
  readonly place: string;
  readonly nights: readonly { readonly day: string; readonly lowC: number }[];
}

const SKIES: readonly Observation['sky'][] = ['clear', 'cloud', 'snow', 'sleet'];

/** Hours that the low is told over. */
const LOW_OVER_H = 12;
const tenths = (value: number): number => Math.round(value * 10) / 10;

/** A number that is always the same for the same text. */
const seedOf = (text: string): number =>
  Array.from(text).reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) >>> 0, 17);

/** A winter's night around each place: always the same for the same place and hour. */
export function observe(place: string, at: Date): Observation {
  const seed = seedOf(place);
  const random = seededRandom(seed);
  const low = -8 + 6 * random();
  const swing = 2 + 2 * random();
  // Coldest before dawn, mildest after noon.
  const tempAt = (hour: number): number => low + swing * (1 - Math.cos(((hour - 5) / 24) * 2 * Math.PI));
  const hours = Array.from({ length: LOW_OVER_H + 1 }, (_, ago) => at.getUTCHours() - ago);
  const wind = 1 + 7 * random();
  return {
    place,
    at: at.toISOString(),
    tempC: tenths(tempAt(at.getUTCHours())),
    lowC: tenths(Math.min(...hours.map(tempAt))),
    windMs: tenths(wind),
    sky: SKIES[Math.floor(random() * SKIES.length)]!,
  };
}

/** Nights that are forecast. */
const NIGHTS = 7;
/** A cold spell comes in the middle of the week and takes this much, degC. */
const SPELL_C = 7;

/** A week of nights around each place: always the same for the same place and day. */
export function forecast(place: string, at: Date): NightsAhead {
  const { lowC } = observe(place, at);
  const nights = Array.from({ length: NIGHTS }, (_, i) => {
    const day = new Date(at.getTime() + (i + 1) * DAY_MS).toISOString().slice(0, 10);
    const random = seededRandom(seedOf(`${place} ${day}`));
    const spell = SPELL_C * Math.sin((Math.PI * (i + 1)) / (NIGHTS + 1));
    return { day, lowC: tenths(lowC - spell + 3 * (random() - 0.5)) };
  });
  return { place, nights };
}

/** The weather service over HTTP: `GET /observation?place=...` and `GET /forecast?place=...`. */
export function weatherServer(): Server {
  return createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://127.0.0.1');
    const place = url.searchParams.get('place')?.trim();
    const answer = url.pathname === '/observation' ? observe : url.pathname === '/forecast' ? forecast : null;
    const status = !answer ? 404 : place ? 200 : 400;
    response.writeHead(status, { 'Content-Type': 'application/json' });
    response.end(JSON.stringify(status === 200 ? answer!(place!, new Date()) : { error: 'no such place' }));
  });
}
