import { inject, Injectable } from '@angular/core';
import { DEFAULT_RULES, type EventData, type EventType, type JobEvent, refusalOf } from '@voltrek/core';
import { REFUSAL_WORDS } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { sessionFeature } from '../../shared/state/session';
import { JobActions, jobFeature } from './job-state';
import { selectEvents } from './job-selectors';

/** Turns a tap into an event of the job on screen. Holds nothing: what it needs it reads from the store. */
@Injectable({ providedIn: 'root' })
export class Reporter {
  private readonly store = inject(Store);
  private readonly jobId = this.store.selectSignal(jobFeature.selectJobId);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly events = this.store.selectSignal(selectEvents);

  /** Reports what happened. What the job's own rules refuse is told at once and never sent. */
  report<T extends EventType>(type: T, data: EventData[T]): void {
    const event = newEvent(this.jobId() ?? '', this.crewId(), type, data);
    const refusal = refusalOf(this.events(), event, DEFAULT_RULES);
    this.store.dispatch(
      refusal ? JobActions.refused({ event, why: REFUSAL_WORDS[refusal] }) : JobActions.reported({ event }),
    );
  }
}

/** A new event with an id of its own, at this moment. */
export function newEvent<T extends EventType>(
  jobId: string,
  by: string,
  type: T,
  data: EventData[T],
): JobEvent {
  return { id: crypto.randomUUID(), jobId, at: new Date().toISOString(), by, type, data } as JobEvent;
}
