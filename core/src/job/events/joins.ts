import type { Job } from '../job.js';

/** A source gives from the moment that its clamps and its switch are on. It ends when one goes off or the machine runs. */
export function joinAfter(job: Job, joined: boolean, at: string): Pick<Job, 'joinedSince' | 'joins'> {
  const { joinedSince, joins, plan } = job;
  if (joined) return { joinedSince: joinedSince ?? at, joins };
  if (joinedSince === null || !plan) return { joinedSince: null, joins };
  const join = { optionId: plan.optionId, minutes: minutesBetween(joinedSince, at) };
  return { joinedSince: null, joins: [...joins, join] };
}

/** Minutes from a moment to another; none where there was no first. */
export const minutesBetween = (since: string | null, at: string): number =>
  since === null ? 0 : Math.max(0, (Date.parse(at) - Date.parse(since)) / 60_000);
