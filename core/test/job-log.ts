import {
  type EventData,
  type EventType,
  foldJob,
  type JobEvent,
  type JobReadings,
  type Refusal,
  refusalInLog,
  type Situation,
  situationOf,
  type Surroundings,
} from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import { DEFAULT_RULES, type HouseRules } from '../src/rules/index.js';
import type { KitItem } from '../src/sources/index.js';
import { CAR, KIT } from './fixtures.js';

/** Returns the situation of a job of the tests: a car lends, and nothing was flat before. */
export const situationIn = (
  job: JobReadings,
  machine: Machine,
  kit: readonly KitItem[] = KIT,
  rules: HouseRules = DEFAULT_RULES,
  earlierFlatCalls = 0,
): Situation => situationOf(job, { machine, donor: CAR, kit, earlierFlatCalls }, rules);

export const START = Date.parse('2027-01-15T02:40:00.000Z');

/** A log that grows a minute per event unless told otherwise. */
export class Log {
  readonly events: JobEvent[] = [];
  private at = START;

  /** @param machine the model of the vehicle; the donor is a car */
  constructor(
    readonly machine: Machine = CAR,
    readonly kit: readonly KitItem[] = KIT,
  ) {
    this.take('job.opened', {
      callId: 'call-1',
      callNumber: 1,
      title: 'Test car',
      placeName: 'Test yard',
      modelId: machine.id,
      ambientC: -4,
    });
  }

  make<T extends EventType>(type: T, data: EventData[T], seconds = 60): JobEvent {
    const at = new Date(this.at + seconds * 1000).toISOString();
    const id = `00000000-0000-4000-8000-${String(this.events.length + 1).padStart(12, '0')}`;
    return { id, jobId: 'job', at, by: 'crew-1', type, data } as JobEvent;
  }

  take<T extends EventType>(type: T, data: EventData[T], seconds = 60): JobEvent {
    const event = this.make(type, data, seconds);
    const refusal = refusalInLog(this.events, event, this.around);
    if (refusal) throw new Error(`${type} refused: ${refusal}`);
    this.events.push(event);
    this.at = Date.parse(event.at);
    return event;
  }

  refuses<T extends EventType>(type: T, data: EventData[T], seconds = 60): Refusal | null {
    return refusalInLog(this.events, this.make(type, data, seconds), this.around);
  }

  get around(): Omit<Surroundings, 'undoable'> {
    return { machine: this.machine, donor: CAR, kit: this.kit, rules: DEFAULT_RULES };
  }

  get job() {
    return foldJob(this.events)!;
  }
}
