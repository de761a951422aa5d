import { WEATHER, type Weather } from '@voltrek/contracts';
import { HttpProblem } from '../http/problem.js';

const ANSWER_MS = 2500;

/** The weather at a place from the service at `baseUrl`. @throws HttpProblem 502 when it is away or talks nonsense */
export async function weatherAt(baseUrl: string, place: string): Promise<Weather> {
  const url = new URL('/observation', baseUrl);
  url.searchParams.set('place', place);
  try {
    const response = await fetch(url, { signal: AbortSignal.timeout(ANSWER_MS) });
    if (!response.ok) throw new Error(`status ${response.status}`);
    return (await WEATHER.validate(await response.json(), { stripUnknown: true })) as Weather;
  } catch {
    throw new HttpProblem(502, 'weatherSilent');
  }
}
