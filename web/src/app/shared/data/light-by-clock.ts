import type { Light } from './session';

/** Night by the clock, hours of the day; Dusk lies for so long before and after it. */
const NIGHT_FROM = 20;
const NIGHT_TO = 6;
const DUSK_HOURS = 2;

/** The light level that suits this hour of the day. */
export function lightAt(hour: number): Light {
  if (hour >= NIGHT_FROM || hour < NIGHT_TO) return 'night';
  return hour >= NIGHT_FROM - DUSK_HOURS || hour < NIGHT_TO + DUSK_HOURS ? 'dusk' : 'day';
}
