import type { HookupAction } from '@voltrek/core/hookup';
import { entryOf, type EventEntry, foldJob, type Job, type JobEvent } from '@voltrek/core/job';
import type { Random } from '@voltrek/core/quantities';

/** Minutes between the call and the first entry. */
const ARRIVAL_MINUTES = 25;

/** The call that a log belongs to. */
export interface LoggedCall {
  readonly id: string;
  readonly number: number;
  readonly title: string;
  readonly placeName: string;
  readonly modelId: string;
  readonly vehicleId: string;
  readonly vanId: string;
  readonly ambientC: number;
}

/** A log under way. */
export interface JobLog {
  readonly events: JobEvent[];
  readonly add: (...entry: EventEntry) => void;
  readonly act: (action: HookupAction, minutes: number) => void;
  readonly wait: (minutes: number) => void;
  readonly waitUntil: (moment: number) => void;
  readonly job: () => Job;
}

/** A log under way: each entry a minute or two after the one before. */
export function jobLog(random: Random, call: LoggedCall, by: string, start: Date): JobLog {
  const jobId = uuid(random);
  const events: JobEvent[] = [];
  let at = start.getTime() + ARRIVAL_MINUTES * 60_000;
  const add = (...[type, data]: EventEntry): void => {
    at += Math.round(30_000 + 60_000 * random());
    events.push({ id: uuid(random), jobId, at: new Date(at).toISOString(), by, type, data } as JobEvent);
  };
  const { id: callId, number: callNumber, title, placeName, modelId, ambientC, vehicleId, vanId } = call;
  add('job.opened', { callId, callNumber, title, placeName, modelId, ambientC, vehicleId, vanId, rules: {} });
  return {
    events,
    add,
    wait: (minutes) => {
      at += minutes * 60_000;
    },
    waitUntil: (moment) => {
      at = Math.max(at, moment);
    },
    act: (action, minutes) => {
      add(...entryOf(action));
      at += minutes * 60_000;
    },
    job: () => foldJob(events)!,
  };
}

/** A version 4 UUID from a seeded generator. */
function uuid(random: Random): string {
  const hex = Array.from({ length: 32 }, () => Math.floor(random() * 16).toString(16));
  hex[12] = '4';
  hex[16] = '89ab'[Math.floor(random() * 4)]!;
  const s = hex.join('');
  return `${s.slice(0, 8)}-${s.slice(8, 12)}-${s.slice(12, 16)}-${s.slice(16, 20)}-${s.slice(20)}`;
}
