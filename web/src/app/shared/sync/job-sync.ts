import { inject, Injectable } from '@angular/core';
import type { JobDetail } from '@voltrek/contracts';
import { JOBS_WANTED_MOST } from '@voltrek/contracts/wire';
import type { JobEvent } from '@voltrek/core/job';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { firstValueFrom, timeout } from 'rxjs';
import { JobActions, loggedFrom } from '../model/job-state';
import { Api } from '../data/api';
import { boardCopy, jobsOn } from '../data/board';
import { PageActions } from '../model/across-pages';
import { StreamLine } from '../data/stream-line';
import { Finder } from '../data/finder';
import { Frames } from '../model/frames';
import { DeviceActions } from './device-state';
import { DeviceStore } from './device-store';
import { type Answer, answerTo } from '../data/answer-to';
import { Errands } from './errands';
import { type Clock, Queues } from './queues';
import { Readiness } from './readiness';
import { JOB_SYNC as T } from '@words/screens/sync';

/** A request that takes longer is given up, ms. */
const REQUEST_MS = 12_000;
/** How often it is looked whether another page left something waiting, ms. */
const SWEEP_MS = 20_000;
/** One page of a device sends what earlier pages left; others send only their own. */
const SENDER_LOCK = 'voltrek.sender';
/** As many of the newest closed jobs are held beside the open ones. */
const CLOSED_HELD = 50;

const CLOCK: Clock = {
  wait: (ms) => new Promise((done) => setTimeout(done, ms)),
  random: Math.random,
};

/** Carries the events of this device to the server, for all jobs, and keeps the answers. */
@Injectable({ providedIn: 'root' })
export class JobSync {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly device = inject(DeviceStore);
  private readonly errands = inject(Errands);
  private readonly finder = inject(Finder);
  private readonly frames = inject(Frames);
  private readonly readiness = inject(Readiness);
  private readonly board = this.store.selectSignal(boardCopy.selectCopy);
  private hasHeldClosed = false;
  private isPreparing = false;
  /** The jobs that the board showed while others were fetched. */
  private openSince: readonly string[] | null = null;
  /** Jobs whose older taps are in line. */
  private readonly begun = new Set<string>();
  private readonly queues = new Queues(
    (event) => this.send(event),
    {
      taken: async (event, revision) => {
        await this.device.acknowledge({ event, revision });
        this.store.dispatch(JobActions.acknowledged({ event, revision, at: new Date().toISOString() }));
      },
      refused: async (event, why) => {
        await this.device.refuse({ event, why, at: new Date().toISOString() });
        this.store.dispatch(JobActions.refused({ event, why }));
        // The server's log may hold what this screen has not seen: fetch it too.
        this.store.dispatch(JobActions.caughtUpWanted({ jobId: event.jobId }));
      },
      gone: async (event) => {
        await this.device.drop(event.id);
        this.store.dispatch(JobActions.leftUnsent({ event }));
      },
      away: () => this.store.dispatch(JobActions.connectionChanged({ connected: false })),
      parked: async ({ id: eventId }, why) => {
        await this.device.park({ eventId, why });
        this.store.dispatch(DeviceActions.parked({ eventId, why }));
      },
    },
    CLOCK,
  );

  constructor() {
    const actions = inject(Actions);
    actions.pipe(ofType(JobActions.reported)).subscribe(({ event }) => void this.take(event));
    // Of every job, not only of the one on screen: what is held here stays as the server has it.
    inject(StreamLine).messages.subscribe((message) => {
      if (message.kind === 'logged') void this.device.acknowledge(message);
    });
    // Another page tapped in the same job: its tap goes before the next one here.
    actions.pipe(ofType(PageActions.doneElsewhere)).subscribe(({ action }) => {
      if (action.type === JobActions.reported.type) this.begun.clear();
    });
    actions.pipe(ofType(JobActions.machineKnown)).subscribe(({ jobId, machine, confidence }) => {
      void this.device.held(jobId).then(async (held) => {
        if (held) await this.device.hold({ ...held, detail: { ...held.detail, machine, confidence } });
      });
    });
    actions.pipe(ofType(JobActions.loaded)).subscribe(({ jobId, detail }) => void this.hold(jobId, detail));
    actions.pipe(ofType(JobActions.refused)).subscribe(({ event, why }) => {
      void this.device.refuse({ event, why, at: new Date().toISOString() });
    });
    actions.pipe(ofType(JobActions.refusalRead)).subscribe(({ eventId }) => void this.device.read(eventId));
    actions.pipe(ofType(JobActions.connectionChanged)).subscribe(({ connected }) => {
      if (!connected) return;
      this.queues.poke();
      void this.errands.send(true);
    });
    actions.pipe(ofType(DeviceActions.sendAgain)).subscribe(({ event }) => {
      void this.device.unpark(event.id).then(() => this.queues.retry(event.jobId));
    });
    actions.pipe(ofType(DeviceActions.dropped)).subscribe(({ event, why }) => {
      void this.device.refuse({ event, why, at: new Date().toISOString() }).then(() => {
        this.queues.drop(event);
        this.store.dispatch(JobActions.leftUnsent({ event }));
      });
    });
    actions.pipe(ofType(boardCopy.loaded, boardCopy.changed)).subscribe(({ copy: calls }) => {
      void this.prepare(jobsOn(calls));
    });
  }

  /** Fetches what a time with no network needs, whatever age the last copies have. */
  prepareAnew(): Promise<void> {
    // A preparation that is under way begins again behind this one.
    this.finder.outdate();
    return this.prepare(jobsOn(this.board()));
  }

  /** Sends what earlier pages left, from the one page of this device that does; others wait to take its place. */
  start(): void {
    // No service worker kept the copies that came before it.
    if ('serviceWorker' in navigator)
      navigator.serviceWorker.addEventListener('controllerchange', () => void this.prepareAnew());
    addEventListener('online', () => {
      this.queues.poke();
      void this.errands.send(true);
    });
    void this.restore();
    void this.readiness.look();
    const lead = (): Promise<never> => {
      void this.sweep();
      setInterval(() => void this.sweep(), SWEEP_MS);
      return new Promise(() => undefined);
    };
    // Every page sends where the browser has no locks: the server takes an event once, however often it comes.
    if ('locks' in navigator) void navigator.locks.request(SENDER_LOCK, lead);
    else void lead();
  }

  private async restore(): Promise<void> {
    this.store.dispatch(DeviceActions.restored(await this.device.allWaiting()));
  }

  private async sweep(): Promise<void> {
    void this.errands.send(true);
    const { waiting, parked } = await this.device.allWaiting();
    for (const event of waiting)
      this.queues.add(
        event,
        parked.some((p) => p.eventId === event.id),
      );
  }

  /** Kept first, then sent: what this device cannot keep goes straight to the server. */
  private async take(event: JobEvent): Promise<void> {
    await this.device.keep(event);
    // Taps that an earlier page left of this job go first.
    if (!this.begun.has(event.jobId))
      for (const earlier of await this.device.waitingFor(event.jobId)) this.queues.add(earlier);
    this.begun.add(event.jobId);
    this.queues.add(event);
  }

  private async send(event: JobEvent): Promise<Answer> {
    // A job may stand on a call or an entry that waits here too.
    if (!(await this.errands.send(false))) return { kind: 'away' };
    const before = await this.errands.standsBefore(event);
    if (before !== null) return { kind: 'choked', why: T.beforeRefused({ before }) };
    try {
      const askedAt = Date.now();
      const taken = await firstValueFrom(
        this.api.append(event, this.device.heldMs(event)).pipe(timeout(REQUEST_MS)),
      );
      if (taken) {
        const now = Date.parse(taken.now);
        this.store.dispatch(JobActions.clockTold({ leastMs: now - Date.now(), mostMs: now - askedAt }));
      }
      return taken ? { kind: 'taken', ...taken } : { kind: 'gone' };
    } catch (error) {
      return answerTo(error);
    }
  }

  /** Holds a job as the server sent it. */
  private hold(jobId: string, { events, ...detail }: JobDetail): Promise<void> {
    return this.device.hold({ jobId, detail, logged: loggedFrom(events) });
  }

  /** Has ready what a time with no network asks for: the jobs of the board, those closed lately, and the house. */
  private async prepare(open: readonly string[]): Promise<void> {
    if (this.isPreparing) {
      this.openSince = open;
      return;
    }
    this.isPreparing = true;
    try {
      if (!(await this.holdAll(open))) return;
      if (!this.hasHeldClosed) {
        const newest = this.api.log('', {}, '', CLOSED_HELD).pipe(timeout(REQUEST_MS));
        this.hasHeldClosed = await this.holdAll((await firstValueFrom(newest)).jobs.map(({ id }) => id));
      }
      await this.finder.prepare();
    } catch {
      // No server: the board asks again when there is one.
    } finally {
      this.isPreparing = false;
      void this.readiness.look();
      const since = this.openSince;
      this.openSince = null;
      if (since) void this.prepare(since);
    }
  }

  /**
   * Jobs are held here before they are opened here: the network may be gone by then. They come some at a time, while the page has nothing
   * more pressing to do; from then on the stream keeps them current.
   *
   * @returns false when the server did not answer
   */
  private async holdAll(jobIds: readonly string[]): Promise<boolean> {
    const held = await this.device.heldIds();
    const missing = jobIds.filter((id) => !held.has(id));
    for (let from = 0; from < missing.length; from += JOBS_WANTED_MOST) {
      await this.frames.after('idle');
      try {
        const some = this.api.jobs(missing.slice(from, from + JOBS_WANTED_MOST)).pipe(timeout(REQUEST_MS));
        for (const detail of await firstValueFrom(some)) await this.hold(detail.events[0]!.jobId, detail);
      } catch {
        return false;
      }
    }
    return true;
  }
}
