import type { StopCondition } from '../../diagnosis/index.js';
import type { Job } from '../job.js';

/** A list with one more, or without it where it was in. */
export const toggled = <T>(list: readonly T[], item: T): readonly T[] =>
  list.includes(item) ? list.filter((x) => x !== item) : [...list, item];

export const withStop = (stops: Job['stops'], stop: StopCondition): Job['stops'] => [
  ...stops.filter((s) => s !== stop),
  stop,
];
