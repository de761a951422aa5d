import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { JobEvent } from '@voltrek/core/job';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { defer, dematerialize, delay, materialize, type Observable, of, pipe, throwError } from 'rxjs';
import { detailOf, event, JOB_ID, opened } from '../../../testing/fixtures';
import { type Acknowledged, Api } from '../state/api';
import { Outbox } from '../state/outbox';
import { dropAcknowledged, fetchIdentified, keepPending, loadJob, sendPending } from './job-effects';
import { JobActions, jobFeature } from './job-state';

const away = () => throwError(() => new HttpErrorResponse({ status: 0 }));
const refused = (detail: string) =>
  throwError(() => new HttpErrorResponse({ status: 409, error: { status: 409, detail } }));

/** An answer, good or bad, comes after the asking, as a server's does. */
const delayed = () => pipe(materialize<Acknowledged>(), delay(0), dematerialize());

describe('job effects', () => {
  const open = opened();
  const tapped = (): JobEvent => event('symptom.recorded', { symptom: 'silence' });
  let kept: string[];
  let sent: string[];
  let fetched: number;
  /** What the server says to each event sent, in turn; then it takes everything. */
  let answers: (() => Observable<Acknowledged>)[];
  let waiting: JobEvent[];
  let store: Store;

  beforeEach(() => {
    kept = [];
    sent = [];
    fetched = 0;
    answers = [];
    waiting = [];
    const outbox: Partial<Outbox> = {
      keep: ({ id }) => Promise.resolve(void kept.push(id)),
      drop: (id) => Promise.resolve(void (kept = kept.filter((k) => k !== id))),
      waitingFor: () => Promise.resolve(waiting),
      heldMs: () => 0,
    };
    const api: Partial<Api> = {
      job: () =>
        defer(() => {
          fetched++;
          return of(detailOf([open]));
        }),
      append: (e) =>
        defer(() => {
          sent.push(e.id);
          return (answers.shift()?.() ?? of({ event: e, revision: sent.length + 1 })).pipe(delayed());
        }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(jobFeature),
        provideEffects({ loadJob, keepPending, dropAcknowledged, sendPending, fetchIdentified }),
        { provide: Outbox, useValue: outbox },
        { provide: Api, useValue: api },
      ],
    });
    store = TestBed.inject(Store) as Store;
  });

  async function settle(ms = 0): Promise<void> {
    for (let i = 0; i < 4; i++) await new Promise((resolve) => setTimeout(resolve, ms / 4));
  }
  async function openJob(): Promise<void> {
    store.dispatch(JobActions.opened({ jobId: JOB_ID }));
    await settle();
  }
  const state = () => store.selectSignal(jobFeature.selectJobState)();

  it('sends what is reported, and forgets it once the server has it', async () => {
    await openJob();
    const tap = tapped();
    store.dispatch(JobActions.reported({ event: tap }));
    expect(state().pending).toEqual([tap]);
    await settle();
    expect(sent).toEqual([tap.id]);
    expect(kept).toEqual([]);
    expect(state().pending).toEqual([]);
    expect(state().logged.at(-1)!.event).toEqual(tap);
  });

  it('sends what waited on the device before it sends what is new', async () => {
    waiting = [tapped(), tapped()];
    await openJob();
    const late = tapped();
    store.dispatch(JobActions.reported({ event: late }));
    await settle();
    expect(sent).toEqual([...waiting, late].map((e) => e.id));
  });

  it('tries again while the server is away, keeps the order, and loses nothing', async () => {
    await openJob();
    answers = [away, away];
    const [first, second] = [tapped(), tapped()];
    store.dispatch(JobActions.reported({ event: first }));
    store.dispatch(JobActions.reported({ event: second }));
    await settle();
    expect(state().connected).toBeFalse();
    expect(kept).toEqual([first.id, second.id]);
    await settle(1600);
    expect(sent).toEqual([first.id, first.id, first.id, second.id]);
    expect(kept).toEqual([]);
  });

  it('tells why an event was refused, fetches what it has not seen, and goes on with the next', async () => {
    await openJob();
    answers = [() => refused('That clamp is on already.')];
    const [first, second] = [tapped(), tapped()];
    store.dispatch(JobActions.reported({ event: first }));
    store.dispatch(JobActions.reported({ event: second }));
    await settle();
    expect(state().refused.map((r) => r.why)).toEqual(['That clamp is on already.']);
    expect(sent).toEqual([first.id, second.id]);
    expect(fetched).toBe(2);
    expect(kept).toEqual([]);
  });

  it('fetches the job again when the machine turns out to be another', async () => {
    await openJob();
    expect(fetched).toBe(1);
    store.dispatch(JobActions.reported({ event: event('model.identified', { modelId: 'van' }) }));
    await settle();
    expect(fetched).toBe(2);
  });
});
