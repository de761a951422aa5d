import type { DiagnosisEvidence } from '../../diagnosis/index.js';
import type { Machine } from '../../machine/index.js';
import type { VerdictRecord } from '../../verdict/index.js';
import { type Doubt, doubtOf } from './doubts.js';
import { evidenceOfJob } from './evidence-of-job.js';
import type { PlanRecord, SceneRecord } from '../events/event.js';
import type { Attempt, Figure, Job, JobPhoto, Note, Reading } from '../job.js';
import { type Mended, mendedOfJob } from './repairs-of-job.js';
import { machineAsFound, workingTempC } from './queries.js';
import { stopsInForce } from '../situation.js';

/** The form of a job sheet as it is handed on: kept while its meaning stays. */
export const SHEET_FORM = 'voltrek-job-sheet/1';

/** Everything a job comes to, for paper and for other programs. Volts, amps, seconds, degC; shares of one. */
export interface JobSheet {
  readonly form: typeof SHEET_FORM;
  readonly jobId: string;
  readonly callNumber: number;
  readonly title: string;
  readonly placeName: string;
  readonly openedAt: string;
  readonly closedAt: string | null;
  /** Crew member who opened it. */
  readonly by: string;
  readonly machine: {
    readonly id: string;
    readonly maker: string;
    readonly model: string;
    readonly systemVolts: 12 | 24;
    readonly batteries: readonly (Machine['batteries'][number]['rating'] & { readonly place: string })[];
  };
  readonly tempC: number;
  readonly scene: SceneRecord | null;
  readonly stops: Job['stops'];
  readonly symptoms: Job['symptoms'];
  /** The finding of each look and check. */
  readonly checks: Job['findings'];
  readonly readings: readonly (Omit<Reading, 'eventId'> & { readonly doubt: Doubt | null })[];
  readonly figures: readonly Omit<Figure, 'eventId'>[];
  readonly evidence: readonly DiagnosisEvidence[];
  readonly plan: Omit<PlanRecord, 'inputs'> | null;
  readonly attempts: readonly Attempt[];
  /** Repairs on the spot, with the findings before and after. */
  readonly repairs: readonly Mended[];
  readonly overrides: Job['overrides'];
  readonly replaced: Job['replaced'];
  readonly notes: readonly Note[];
  readonly photos: readonly JobPhoto[];
  readonly cautions: readonly string[];
  /** Acts that this machine never stands. */
  readonly never: readonly string[];
  readonly resets: readonly { readonly reset: string; readonly done: boolean }[];
  readonly verdict: VerdictRecord | null;
  /** Readings of the charged batteries later, and the verdict since; null until then. */
  readonly recheck: Job['recheck'];
}

/** The sheet of a job as its log stands. */
export function sheetOfJob(job: Job, entry: Machine, earlierFlatCalls: number): JobSheet {
  const machine = machineAsFound(job, entry);
  const { callNumber, title, placeName } = job.call;
  const { id, maker, model, systemVolts } = machine;
  return {
    form: SHEET_FORM,
    jobId: job.id,
    callNumber,
    title,
    placeName,
    openedAt: job.openedAt,
    closedAt: job.closedAt,
    by: job.openedBy,
    machine: {
      id,
      maker,
      model,
      systemVolts,
      batteries: machine.batteries.map(({ rating, place }) => ({ ...rating, place })),
    },
    tempC: workingTempC(job),
    scene: job.scene,
    stops: stopsInForce(job, entry),
    symptoms: job.symptoms,
    checks: job.findings,
    readings: job.readings.map((reading) => {
      const { eventId: _eventId, ...rest } = reading;
      return { ...rest, doubt: doubtOf(job, machine, reading) };
    }),
    figures: job.figures.map(({ eventId: _eventId, ...rest }) => rest),
    evidence: evidenceOfJob(job, machine, earlierFlatCalls),
    plan: job.plan && withoutInputs(job.plan),
    attempts: job.attempts,
    repairs: mendedOfJob(job),
    overrides: job.overrides,
    replaced: job.replaced,
    notes: job.notes ?? [],
    photos: job.photos ?? [],
    cautions: machine.cautions,
    never: machine.never,
    resets: machine.resets.map((reset) => ({ reset, done: job.resets.includes(reset) })),
    verdict: job.verdict,
    recheck: job.recheck,
  };
}

function withoutInputs({ inputs: _inputs, ...rest }: PlanRecord): Omit<PlanRecord, 'inputs'> {
  return rest;
}
