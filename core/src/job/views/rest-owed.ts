import type { HouseRules } from '../../rules/index.js';
import type { Job } from '../job.js';

/** True when somebody said why a rule is not kept, since the last try ended. */
export function isOverridden(job: Pick<Job, 'attempts' | 'overrides'>, rule: keyof HouseRules): boolean {
  const since = job.attempts.at(-1)?.endedAt ?? '';
  return job.overrides.some((o) => o.rule === rule && o.at >= since);
}

/** Seconds of rest still owed to starter and leads at the moment `at`; zero once overridden. */
export function restSecondsLeft(
  job: Pick<Job, 'attempts' | 'overrides'>,
  at: string,
  rules: HouseRules,
): number {
  const last = job.attempts.filter((a) => !a.rolled).at(-1);
  const endedAt = last?.endedAt;
  if (!endedAt || isOverridden(job, 'crankRestSeconds')) return 0;
  const rested = (Date.parse(at) - Date.parse(endedAt)) / 1000;
  return Math.max(0, Math.max(rules.crankRestSeconds, last.restSeconds) - rested);
}
