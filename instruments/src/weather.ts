import { createServer, type Server } from 'node:http';
import { seededRandom } from '@voltrek/core/quantities';

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

const SKIES: readonly Observation['sky'][] = ['clear', 'cloud', 'snow', 'sleet'];

/** Hours that the low is told over. */
const LOW_OVER_H = 12;
const tenths = (value: number): number => Math.round(value * 10) / 10;

/** A winter's night around each place: always the same for the same place and hour. */
export function observe(place: string, at: Date): Observation {
  const seed = Array.from(place).reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) >>> 0, 17);
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

/** The weather service over HTTP: `GET /observation?place=...`. */
export function weatherServer(): Server {
  return createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://127.0.0.1');
    const place = url.searchParams.get('place')?.trim();
    const status = url.pathname !== '/observation' ? 404 : place ? 200 : 400;
    response.writeHead(status, { 'Content-Type': 'application/json' });
    response.end(JSON.stringify(status === 200 ? observe(place!, new Date()) : { error: 'no such place' }));
  });
}
