import type { Findings } from '../../belief/index.js';
import { againstCrankLimit, type DiagnosisEvidence } from '../../diagnosis/index.js';
import type { Machine } from '../../machine/index.js';
import type { Case } from '../../verdict/index.js';
import { evidenceOfJob, profileOfJob } from './evidence-of-job.js';
import type { Recheck } from '../events/event.js';
import type { Job } from '../job.js';
import { repairsMade } from './repairs-of-job.js';
import { caseOfJob } from './case-of-job.js';

/** The input of the verdict over a recheck: the repairs of the job, then the charge. */
export interface RecheckQuestion extends Findings {
  readonly facts: Case;
}

/**
 * All findings of the job, and the readings now of its batteries, charged to full and rested for a day: the charge lies between them like a
 * repair. Earlier findings still tell why it was flat, and new readings tell of the battery.
 */
export function recheckQuestion(
  job: Job,
  machine: Machine,
  earlierFlatCalls: number,
  { tempC, restVolts, tested, crankVolts }: Recheck,
): RecheckQuestion {
  const made = repairsMade(job);
  const repaired = made.length + 1;
  const isString = machine.batteries.length > 1;
  const of = (battery: number): Partial<DiagnosisEvidence> => ({ repaired, ...(isString && { battery }) });
  const now: DiagnosisEvidence[] = [
    ...restVolts.map((found, i): DiagnosisEvidence => ({ check: 'rest', found, ...of(i) })),
    ...tested.flatMap((found, i): DiagnosisEvidence[] =>
      found === null ? [] : [{ check: 'conductance', found, ...of(i) }],
    ),
    ...(crankVolts !== null && machine.engine
      ? [
          {
            check: 'crank',
            found: againstCrankLimit(crankVolts, tempC, machine.systemVolts),
            repaired,
          } as const,
        ]
      : []),
  ];
  return {
    profile: profileOfJob(job, machine),
    repairs: [...made, { kind: 'battery-charged', tempC }],
    // The readings of its own job are all among the evidence.
    earlier: null,
    evidence: [...evidenceOfJob(job, machine, earlierFlatCalls), ...now],
    // The kit of those tries has long been elsewhere: each counts by its word.
    tries: [],
    facts: {
      ...caseOfJob(job, machine, earlierFlatCalls),
      stops: [],
      tempC,
      // Charged since, it has thawed.
      coldestC: tempC,
      restVolts,
      isRested: true,
    },
  };
}
