import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { BoardCall, JobDetail } from '@voltrek/contracts';
import { JOBS_WANTED_MOST } from '@voltrek/contracts/wire';
import { provideStore, Store } from '@ngrx/store';
import { EMPTY, of, Subject, throwError } from 'rxjs';
import { detailOf, opened } from '../../../testing/fixtures';
import { Api } from '../data/api';
import { boardCopy } from '../data/board';
import { Finder } from '../data/finder';
import { StreamLine } from '../data/stream-line';
import { Frames } from '../model/frames';
import { DeviceStore } from './device-store';
import { Readiness } from './readiness';
import { Errands } from './errands';
import { JobSync } from './job-sync';

const board = (...ids: readonly string[]) =>
  boardCopy.changed(ids.map((id) => ({ job: { id } })) as unknown as BoardCall[]);
const several = (count: number): string[] => Array.from({ length: count }, (_, i) => `job-${i}`);
const detail = (jobId: string): JobDetail => detailOf([{ ...opened(), jobId }]);

describe('what a device has ready for a time with no network', () => {
  let held: Set<string>;
  let asked: (readonly string[])[];
  let prepared: number;
  let isAway: boolean;
  /** Answers wait for it where a test says so. */
  let gate: Subject<void> | null;

  beforeEach(() => {
    [held, asked, prepared, isAway, gate] = [new Set(['held']), [], 0, false, null];
    const api = {
      jobs: (ids: readonly string[]) => {
        asked.push(ids);
        if (isAway) return throwError(() => new Error('away'));
        const details = ids.map(detail);
        if (!gate) return of(details);
        const answers = new Subject<JobDetail[]>();
        gate.subscribe(() => {
          answers.next(details);
          answers.complete();
        });
        return answers;
      },
      log: () => of({ jobs: [{ id: 'closed' }, { id: 'held' }] }),
    };
    const device = {
      heldIds: () => Promise.resolve(new Set(held)),
      hold: ({ jobId }: { jobId: string }) => {
        held.add(jobId);
        return Promise.resolve();
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        { provide: Api, useValue: api },
        { provide: DeviceStore, useValue: device },
        { provide: Errands, useValue: {} },
        { provide: Readiness, useValue: { look: () => Promise.resolve() } },
        { provide: StreamLine, useValue: { messages: EMPTY } },
        { provide: Finder, useValue: { prepare: () => Promise.resolve(void prepared++) } },
      ],
    });
    TestBed.inject(JobSync);
  });

  /** Shows a board, and waits until nothing moves any more: what comes in idle moments, however late a busy machine has one, came before ours. */
  async function shows(...ids: readonly string[]): Promise<void> {
    TestBed.inject(Store).dispatch(board(...ids));
    for (let quiet = 0, seen = -1; quiet < 3; quiet = seen === asked.length ? quiet + 1 : 0) {
      seen = asked.length;
      await new Promise((done) => setTimeout(done));
      await TestBed.inject(Frames).after('idle');
    }
  }

  it('are the jobs of the board, those closed lately and the house, each fetched once', async () => {
    await shows('open', 'held');
    expect(asked).toEqual([['open'], ['closed']]);
    expect(prepared).toBe(1);
    await shows('open', 'held', 'new');
    expect(asked.slice(2)).toEqual([['new']]);
  });

  it('comes some at a time', async () => {
    const ids = several(2 * JOBS_WANTED_MOST + 3);
    await shows(...ids);
    const sizes = asked.map(({ length }) => length);
    expect(sizes).toEqual([JOBS_WANTED_MOST, JOBS_WANTED_MOST, 3, 1]);
    expect(ids.every((id) => held.has(id))).toBeTrue();
  });

  it('has what came onto the board in the meantime as well, with one request at a time', async () => {
    gate = new Subject();
    await shows('first');
    await shows('first', 'second');
    expect(asked).toEqual([['first']]);
    const going = gate;
    gate = null;
    going.next();
    await shows('first', 'second');
    expect(held.has('second')).toBeTrue();
    expect(asked.flat().filter((id) => id === 'second').length).toBe(1);
  });

  it('is left until the next board where no server answers', async () => {
    isAway = true;
    await shows('open');
    expect(asked).toEqual([['open']]);
    expect(prepared).toBe(0);
    isAway = false;
    await shows('open');
    expect(held.has('open') && held.has('closed')).toBeTrue();
  });
});
