import { kitCopy } from '../data/kit';
import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { defer, of, throwError } from 'rxjs';
import { detailOf, event, JOB_ID, opened } from '../../../testing/fixtures';
import { Api } from '../data/api';
import { DeviceStore, type HeldJob } from '../sync/device-store';
import { fetchGap, fetchIdentified, loadJob, restoreJob } from './job-effects';
import { JobActions, jobFeature } from '../model/job-state';

describe('job effects', () => {
  const open = opened();
  let fetched: number;
  let isAway: boolean;
  /** The server's answer instead of the job. */
  let refusal: number | null;
  let held: HeldJob | undefined;
  let waiting: ReturnType<typeof event>[];
  let store: Store;

  beforeEach(() => {
    fetched = 0;
    isAway = false;
    refusal = null;
    held = undefined;
    waiting = [];
    const device: Partial<DeviceStore> = {
      held: () => Promise.resolve(held),
      waitingFor: () => Promise.resolve(waiting),
    };
    const api: Partial<Api> = {
      job: () =>
        defer(() => {
          fetched++;
          const status = isAway ? 0 : refusal;
          return status === null ? of(detailOf([open])) : throwError(() => new HttpErrorResponse({ status }));
        }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(jobFeature),
        provideState(kitCopy),
        provideEffects({ loadJob, restoreJob, fetchIdentified, fetchGap }),
        { provide: DeviceStore, useValue: device },
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

  it('shows what waited on the device on top of what the server has', async () => {
    waiting = [event('symptom.recorded', { symptom: 'silence' })];
    await openJob();
    expect(state().logged.map((l) => l.event.id)).toEqual([open.id]);
    expect(state().pending).toEqual(waiting);
  });

  it('shows the copy of a device that is slow, though the server is asked again before it answers', async () => {
    isAway = true;
    const { events: _events, ...detail } = detailOf([open]);
    held = { jobId: JOB_ID, detail, logged: [{ event: open, revision: 1 }] };
    store.dispatch(JobActions.opened({ jobId: JOB_ID }));
    store.dispatch(JobActions.caughtUpWanted({ jobId: JOB_ID }));
    await settle();
    expect(state().detail).not.toBeNull();
  });

  it('opens a job that is held here while there is no server, and fetches it once there is', async () => {
    isAway = true;
    const { events: _events, ...detail } = detailOf([open]);
    const known = event('symptom.recorded', { symptom: 'one-click' });
    held = {
      jobId: JOB_ID,
      detail,
      logged: [
        { event: open, revision: 1 },
        { event: known, revision: 2 },
      ],
    };
    await openJob();
    expect(state().detail).not.toBeNull();
    expect(state().logged.map((l) => l.event.id)).toEqual([open.id, known.id]);
    expect(state().problem).toBeNull();
    isAway = false;
    await settle(900);
    expect(fetched).toBeGreaterThan(1);
  });

  it('leaves it to the bar of the door to say that nobody is signed in, and says itself what else is wrong', async () => {
    await openJob();
    refusal = 401;
    store.dispatch(JobActions.caughtUpWanted({ jobId: JOB_ID }));
    await settle();
    expect(fetched).toBe(2);
    expect(state().problem).toBeNull();
    refusal = 403;
    store.dispatch(JobActions.caughtUpWanted({ jobId: JOB_ID }));
    await settle();
    expect(state().problem).not.toBeNull();
  });

  it('fetches what lies in the gap when an event is heard too early', async () => {
    await openJob();
    expect(fetched).toBe(1);
    store.dispatch(
      JobActions.received({ event: event('symptom.recorded', { symptom: 'silence' }), revision: 2 }),
    );
    await settle();
    expect(fetched).toBe(1);
    store.dispatch(
      JobActions.received({ event: event('symptom.recorded', { symptom: 'one-click' }), revision: 4 }),
    );
    await settle();
    expect(fetched).toBe(2);
  });

  it('lets the news of another job be: what this one waits for goes on', async () => {
    await openJob();
    store.dispatch(JobActions.caughtUpWanted({ jobId: 'another' }));
    await settle();
    expect(fetched).toBe(1);
    expect(state().jobId).toBe(JOB_ID);
  });

  it('fetches the job again when the machine turns out to be another', async () => {
    await openJob();
    const found = event('model.identified', { modelId: 'van' });
    store.dispatch(JobActions.acknowledged({ event: found, revision: 2, at: '' }));
    await settle();
    expect(fetched).toBe(2);
  });
});
