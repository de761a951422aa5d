import { type Cause, curesOf } from '../diagnosis/index.js';
import { type Job, repairsMade, currentVerdict, workingTempC } from '../job/index.js';
import type { Machine } from '../machine/index.js';
import { causesOf } from './case-profile.js';
import { seedOf } from './seed.js';
import { codeOfMade } from './start-case.js';
import { MADE_COLD } from './written-case.js';

/**
 * The code of a case like this job: its class of machine, its cold, and what it ended with as the hidden fault. Nothing in it names anybody.
 *
 * @returns null while the job is open, and for one that ended with no fault that a case can have
 */
export function caseFromLog(job: Job, { machineClass }: Pick<Machine, 'machineClass'>): string | null {
  const verdict = currentVerdict(job);
  if (job.closedAt === null || !verdict) return null;
  const mended = verdict.verdict === 'repaired' ? repairsMade(job).flatMap((repair) => curesOf(repair)) : [];
  const suspected = (verdict.causes ?? []).map(({ cause }) => cause);
  const cause = [...mended, ...suspected].find((c): c is Cause => causesOf(machineClass).includes(c));
  if (!cause) return null;
  const tempC = Math.round(Math.min(MADE_COLD.max, Math.max(MADE_COLD.min, workingTempC(job))));
  return codeOfMade({ machineClass, cause, tempC }, seedOf(job.id) % NUMBERS);
}
/** Codes have six digits at the most. */
const NUMBERS = 1_000_000;
