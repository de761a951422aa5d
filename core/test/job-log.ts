import {
  DEFAULT_RULES,
  type EventData,
  type EventType,
  foldJob,
  type JobEvent,
  type Refusal,
  refusalOf,
} from '../src/index.js';

export const START = Date.parse('2027-01-15T02:40:00.000Z');

/** A log that grows a minute per event unless told otherwise. */
export class Log {
  readonly events: JobEvent[] = [];
  private at = START;

  constructor() {
    this.take('job.opened', {
      callId: 'call-1',
      callNumber: 1,
      title: 'Test car',
      placeName: 'Test yard',
      modelId: 'car',
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
    const refusal = refusalOf(this.events, event, DEFAULT_RULES);
    if (refusal) throw new Error(`${type} refused: ${refusal}`);
    this.events.push(event);
    this.at = Date.parse(event.at);
    return event;
  }

  refuses<T extends EventType>(type: T, data: EventData[T], seconds = 60): Refusal | null {
    return refusalOf(this.events, this.make(type, data, seconds), DEFAULT_RULES);
  }

  get job() {
    return foldJob(this.events)!;
  }
}
