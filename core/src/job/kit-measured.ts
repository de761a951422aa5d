import { type LeadUse, measuredFactor } from '../leads/measured-set.js';
import type { KitItem, LeadSetKit } from '../sources/kit.js';
import type { Job } from './job.js';
import { workingTempC } from './queries.js';

/**
 * The lead sets of a van with what this job has measured of them, in the place of what it had before: an undone reading goes again. Only those
 * that change are given.
 */
export function kitMeasured(
  job: Pick<Job, 'id' | 'leadReadings' | 'scene' | 'call'>,
  kit: readonly KitItem[],
): LeadSetKit[] {
  return kit.flatMap((item) => {
    if (item.kind !== 'lead-set') return [];
    const before = item.uses ?? [];
    const own = job.leadReadings
      .filter(({ leadSetId }) => leadSetId === item.id)
      .flatMap((reading): LeadUse[] => {
        const found = measuredFactor(reading, item.leads, workingTempC(job));
        return found ? [{ jobId: job.id, at: reading.at, ...found }] : [];
      });
    const known = before.filter(({ jobId }) => jobId === job.id);
    if (JSON.stringify(known) === JSON.stringify(own)) return [];
    const uses = [...before.filter(({ jobId }) => jobId !== job.id), ...own].sort((a, b) =>
      a.at < b.at ? -1 : a.at > b.at ? 1 : 0,
    );
    return [{ ...item, uses }];
  });
}
