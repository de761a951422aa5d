import { inject, Injectable } from '@angular/core';
import type { JobDetail } from '@voltrek/contracts';
import {
  type EventEntry,
  foldJob,
  type JobEvent,
  lastUndoable,
  type Refusal,
  refusalOf,
  type Surroundings,
} from '@voltrek/core/job';
import { REFUSAL_WORDS } from '@words/refusal-words';
import { Store } from '@ngrx/store';
import { sessionFeature } from '../data/session';
import { DeviceStore } from '../sync/device-store';
import { JobActions, jobFeature } from '../model/job-state';
import { newEvent } from './new-event';
import { selectDetail, selectEvents, selectJob } from './job-selectors';

/** Turns a tap into an event of the job on screen. Holds nothing: what it needs it reads from the store. */
@Injectable({ providedIn: 'root' })
export class Reporter {
  private readonly store = inject(Store);
  private readonly device = inject(DeviceStore);
  private readonly jobId = this.store.selectSignal(jobFeature.selectJobId);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly events = this.store.selectSignal(selectEvents);
  private readonly clockAhead = this.store.selectSignal(jobFeature.selectClockAheadMs);
  private readonly job = this.store.selectSignal(selectJob);
  private readonly detail = this.store.selectSignal(selectDetail);

  /**
   * Reports what happened in a job that is not on screen. It is judged by what this device holds of it; of a job that it does not hold the server
   * judges. Kept first, then sent, like every tap.
   */
  async reportFor(jobId: string, ...entry: EventEntry): Promise<void> {
    const event = this.eventOf(jobId, entry);
    const held = await this.device.held(jobId);
    const waiting = await this.device.waitingFor(jobId);
    const events = held ? [...held.logged.map((l) => l.event), ...waiting] : [];
    const refusal = held ? refusalOf(foldJob(events), event, this.around(held.detail, events)) : null;
    this.tell(event, refusal);
  }

  /** Reports what happened. What the job's own rules refuse is shown at once and never sent. */
  report(...entry: EventEntry): void {
    const event = this.eventOf(this.jobId() ?? '', entry);
    const detail = this.detail();
    // Until the job is here nothing can be judged: the server will.
    this.tell(event, detail && refusalOf(this.job(), event, this.around(detail, this.events())));
  }

  private eventOf(jobId: string, entry: EventEntry): JobEvent {
    const made = newEvent(jobId, this.crewId(), ...entry);
    // By the server's clock, as far as it is known: rests are counted by it.
    return { ...made, at: new Date(Date.now() + this.clockAhead()).toISOString() } as JobEvent;
  }

  private around(
    { machine, donorMachine: donor, kit, rules }: Omit<JobDetail, 'events'>,
    events: readonly JobEvent[],
  ): Surroundings {
    return { machine, donor, kit, rules, undoable: () => lastUndoable(events) };
  }

  private tell(event: JobEvent, refusal: Refusal | null): void {
    this.store.dispatch(
      refusal ? JobActions.refused({ event, why: REFUSAL_WORDS[refusal] }) : JobActions.reported({ event }),
    );
  }
}
