import type { JobSummary } from '@voltrek/contracts';
import {
  currentVerdict,
  foldJob,
  type JobEvent,
  reachedStage,
  underCharge,
  vansComing,
} from '@voltrek/core/job';

/** Jobs that were opened here and that the server does not know yet, by the id of their call. */
export function jobsOpenedHere(waiting: readonly JobEvent[]): ReadonlyMap<string, JobSummary> {
  const opened = waiting.filter((e) => e.type === 'job.opened');
  return new Map(
    opened.flatMap((open) => {
      const job = foldJob(waiting.filter((e) => e.jobId === open.jobId));
      if (!job) return [];
      const verdict = currentVerdict(job);
      const { callId, callNumber, title, placeName, vehicleId = '', vanId = '' } = open.data;
      const summary: JobSummary = {
        ...{ id: job.id, callId, callNumber, title, placeName, vehicleId, vanId },
        modelId: job.modelId,
        stage: reachedStage(job),
        state: job.closedAt === null ? 'open' : 'closed',
        verdict: verdict?.verdict ?? null,
        suspect: verdict?.suspect ?? null,
        lowestRestVolts: null,
        vansComing: vansComing(job),
        chargeUntil: underCharge(job)?.dueAt ?? null,
        openedAt: job.openedAt,
        closedAt: job.closedAt,
        by: job.openedBy,
        revision: 0,
      };
      return [[callId, summary] as const];
    }),
  );
}
