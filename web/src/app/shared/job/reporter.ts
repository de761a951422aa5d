import { inject, Injectable } from '@angular/core';
import { type EventEntry, type JobEvent, lastUndoable, refusalOf } from '@voltrek/core/job';
import { REFUSAL_WORDS } from '@voltrek/contracts/words';
import { Store } from '@ngrx/store';
import { sessionFeature } from '../state/session';
import { JobActions, jobFeature } from './job-state';
import { newEvent } from './new-event';
import { selectDetail, selectEvents, selectJob } from './job-selectors';

/** Turns a tap into an event of the job on screen. Holds nothing: what it needs it reads from the store. */
@Injectable({ providedIn: 'root' })
export class Reporter {
  private readonly store = inject(Store);
  private readonly jobId = this.store.selectSignal(jobFeature.selectJobId);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly events = this.store.selectSignal(selectEvents);
  private readonly clockAhead = this.store.selectSignal(jobFeature.selectClockAheadMs);
  private readonly job = this.store.selectSignal(selectJob);
  private readonly detail = this.store.selectSignal(selectDetail);

  /** Reports what happened. What the job's own rules refuse is told at once and never sent. */
  report(...entry: EventEntry): void {
    const made = newEvent(this.jobId() ?? '', this.crewId(), ...entry);
    // By the server's clock, as far as it is known: rests are counted by it.
    const event = { ...made, at: new Date(Date.now() + this.clockAhead()).toISOString() } as JobEvent;
    const detail = this.detail();
    // Until the job is here nothing can be judged: the server will.
    const refusal =
      detail &&
      refusalOf(this.job(), event, {
        machine: detail.machine,
        donor: detail.donorMachine,
        kit: detail.kit,
        rules: detail.rules,
        undoable: () => lastUndoable(this.events()),
      });
    this.store.dispatch(
      refusal ? JobActions.refused({ event, why: REFUSAL_WORDS[refusal] }) : JobActions.reported({ event }),
    );
  }
}
