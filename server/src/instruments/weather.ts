import { FORECAST, type Forecast, WEATHER, type Weather } from '@voltrek/contracts';
import type { Schema } from 'yup';
import { HttpProblem } from '../http/problem.js';

const ANSWER_MS = 2500;

/** The weather at a place from the service at `baseUrl`. @throws HttpProblem 502 when it is away or talks nonsense */
export const weatherAt = (baseUrl: string, place: string): Promise<Weather> =>
  answerOf(new URL('/observation', baseUrl), place, WEATHER) as Promise<Weather>;

/** The lows of the week's nights at a place. @throws HttpProblem 502 when the service is away or talks nonsense */
export const forecastAt = (baseUrl: string, place: string): Promise<Forecast> =>
  answerOf(new URL('/forecast', baseUrl), place, FORECAST) as Promise<Forecast>;

async function answerOf(url: URL, place: string, schema: Schema): Promise<unknown> {
  url.searchParams.set('place', place);
  try {
    const response = await fetch(url, { signal: AbortSignal.timeout(ANSWER_MS) });
    if (!response.ok) throw new Error(`status ${response.status}`);
    return await schema.validate(await response.json(), { stripUnknown: true });
  } catch {
    throw new HttpProblem(502, 'weatherSilent');
  }
}
