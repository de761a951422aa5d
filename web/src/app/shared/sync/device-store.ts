import { inject, Injectable, signal } from '@angular/core';
import type { JobDetail } from '@voltrek/contracts';
import { type JobEvent, upgradeLog } from '@voltrek/core/job';
import { type DBSchema, type IDBPDatabase, type IDBPTransaction, openDB } from 'idb';
import { firstValueFrom, from, timeout } from 'rxjs';
import type { LoggedEvent, RefusedEvent } from '../model/job-state';
import { Frames } from '../model/frames';
import type { Errand } from '../model/errand';
import { TapJournal } from './tap-journal';

/** A job as this device last knew it. */
export interface HeldJob {
  readonly jobId: string;
  readonly detail: Omit<JobDetail, 'events'>;
  readonly logged: readonly LoggedEvent[];
}

/** An event that failed too often, with the last answer. */
export interface ParkedEvent {
  readonly eventId: string;
  readonly why: string;
}

/** A refusal, with the moment it came. */
export type KeptRefusal = RefusedEvent & { readonly at: string };

interface DeviceSchema extends DBSchema {
  /** Keys count up as events are kept, so that they are sent in the order they happened: a clock may stand still, or be set back. */
  waiting: { key: number; value: JobEvent; indexes: { eventId: string; jobId: string } };
  /** As it was before keys counted up. */
  outbox: { key: string; value: { readonly order: number; readonly event: JobEvent } };
  jobs: { key: string; value: HeldJob };
  refused: { key: string; value: KeptRefusal & { readonly eventId: string } };
  parked: { key: string; value: ParkedEvent };
  /** Keys count up, so that they are sent in the order they were kept. */
  errands: { key: number; value: KeptErrand; indexes: { id: string } };
}
/** A picture is kept as its bytes: a browser keeps a Blob beside its database, where it may be lost or late. */
interface KeptPhoto {
  readonly bytes: ArrayBuffer;
  readonly type: string;
}
/** An errand with the picture that goes with it; those kept before are Blobs. */
interface KeptErrand {
  readonly errand: Errand;
  readonly photo: KeptPhoto | Blob | null;
}
type Stores = ('waiting' | 'outbox' | 'jobs' | 'refused' | 'parked' | 'errands')[];
/** The key of the fate of an event. */
const SETTLED_IN = ['waiting', 'parked', 'jobs', 'refused'] as const;
type Settling = IDBPTransaction<DeviceSchema, typeof SETTLED_IN, 'readwrite'>;

/** A database that says nothing for longer is held for one that cannot keep, ms: another page may hold it, or the browser has lost it. */
const DATABASE_MS = 8_000;

/** Keeps jobs across a reload, a flat tablet or a dead network. When it cannot keep, it says so and nothing else changes. */
@Injectable({ providedIn: 'root' })
export class DeviceStore {
  private opening: Promise<IDBPDatabase<DeviceSchema>> | undefined;
  private readonly frames = inject(Frames);
  private readonly journal = new TapJournal();
  /** When what waits was kept, by a clock that nobody sets; only since this page was opened. */
  private readonly keptAt = new Map<string, number>();
  private readonly able = signal(true);
  /** False once something could not be kept: taps then go straight to the server, and only there. */
  readonly canKeep = this.able.asReadonly();

  private database(): Promise<IDBPDatabase<DeviceSchema>> {
    this.opening ??= openDB<DeviceSchema>('voltrek', 4, {
      upgrade: (db, oldVersion, _newVersion, change) => {
        if (oldVersion < 2) {
          const store = db.createObjectStore('waiting', { autoIncrement: true });
          store.createIndex('eventId', 'id', { unique: true });
          store.createIndex('jobId', 'jobId');
          // Taps that wait on this device from before the change are carried over.
          if (oldVersion === 1) void carryOver(db, change);
        }
        if (oldVersion < 3) {
          db.createObjectStore('jobs', { keyPath: 'jobId' });
          db.createObjectStore('refused', { keyPath: 'eventId' });
          db.createObjectStore('parked', { keyPath: 'eventId' });
        }
        db.createObjectStore('errands', { autoIncrement: true }).createIndex('id', 'errand.id', {
          unique: true,
        });
      },
      // A newer page in another tab wants to change it: this one opens it anew when it next needs it.
      blocking: (_now, _wanted, event) => {
        (event.target as IDBDatabase).close();
        this.opening = undefined;
      },
      // The browser closed it, out of room or by its owner's wish.
      terminated: () => {
        this.opening = undefined;
      },
    }).then(async (db) => {
      await this.keepLeft(db);
      return db;
    });
    return this.opening;
  }

  /** Taps whose page went before the database had them. */
  private async keepLeft(db: IDBPDatabase<DeviceSchema>): Promise<void> {
    for (const { key, taps } of this.journal.left()) {
      for (const event of upgradeLog(taps)) await keepIn(db, event);
      this.journal.forget(key);
    }
  }

  /** Does something to the database; a failure shows in `canKeep`, and `otherwise` stands in for it. */
  private async attempt<T>(what: (db: IDBPDatabase<DeviceSchema>) => Promise<T>, otherwise: T): Promise<T> {
    for (let tries = 0; tries < 2; tries++) {
      try {
        const asked = this.database().then(what);
        const done = await firstValueFrom(from(asked).pipe(timeout(DATABASE_MS)));
        this.able.set(true);
        return done;
      } catch {
        // It may only have been closed under our hands: opened anew it answers.
        this.opening = undefined;
      }
    }
    this.able.set(false);
    return otherwise;
  }

  async keep(event: JobEvent): Promise<void> {
    this.keptAt.set(event.id, performance.now());
    this.journal.write(event);
    // Written down it is: the frame that shows the tap does not wait for the database.
    await this.frames.after('frame');
    return this.attempt(async (db) => {
      await keepIn(db, event);
      this.journal.erase(event.id);
    }, undefined);
  }

  /** An event is in the server's log: it goes from what waits into what is known, both at once. */
  acknowledge({ event, revision }: LoggedEvent): Promise<void> {
    return this.settle(event.id, async (change) => {
      const jobs = change.objectStore('jobs');
      const held = await jobs.get(event.jobId);
      if (held) await jobs.put({ ...held, logged: withEntry(held.logged, { event, revision }) });
    });
  }

  /** An event was refused: it waits no longer, and stays in sight until it is read. */
  refuse(refusal: KeptRefusal): Promise<void> {
    const eventId = refusal.event.id;
    return this.settle(eventId, (change) => change.objectStore('refused').put({ ...refusal, eventId }));
  }

  /** An event waits no longer, and nothing more is to be known of it. */
  drop(eventId: string): Promise<void> {
    return this.settle(eventId, () => Promise.resolve());
  }

  /** Takes an event out of what waits, together with what becomes of it: both or neither. */
  private settle(eventId: string, become: (change: Settling) => Promise<unknown>): Promise<void> {
    this.journal.erase(eventId);
    return this.attempt(async (db) => {
      const change = db.transaction(SETTLED_IN, 'readwrite');
      await become(change);
      const waiting = change.objectStore('waiting');
      const key = await waiting.index('eventId').getKey(eventId);
      if (key !== undefined) await waiting.delete(key);
      await change.objectStore('parked').delete(eventId);
      await change.done;
      this.keptAt.delete(eventId);
    }, undefined);
  }

  park(parked: ParkedEvent): Promise<void> {
    return this.attempt(async (db) => void (await db.put('parked', parked)), undefined);
  }

  unpark(eventId: string): Promise<void> {
    return this.attempt((db) => db.delete('parked', eventId), undefined);
  }

  read(eventId: string): Promise<void> {
    return this.attempt((db) => db.delete('refused', eventId), undefined);
  }

  /** A job as it now is known here. What is in the log already and newer stays. */
  hold({ jobId, detail, logged }: HeldJob): Promise<void> {
    return this.attempt(async (db) => {
      const change = db.transaction('jobs', 'readwrite');
      const before = await change.store.get(jobId);
      const merged = logged.reduce(withEntry, before?.logged ?? []);
      await change.store.put({ jobId, detail, logged: merged });
      await change.done;
    }, undefined);
  }

  held(jobId: string): Promise<HeldJob | undefined> {
    return this.attempt((db) => db.get('jobs', jobId), undefined);
  }

  /** Drops jobs that are held here and at the server alike, with nothing waiting and nothing to read. */
  forgetSettled(): Promise<void> {
    return this.attempt(async (db) => {
      const change = db.transaction(SETTLED_IN, 'readwrite');
      const waiting = await change.objectStore('waiting').getAll();
      const refused = await change.objectStore('refused').getAll();
      const needed = new Set([
        ...waiting.map(({ jobId }) => jobId),
        ...refused.map(({ event }) => event.jobId),
      ]);
      const jobs = change.objectStore('jobs');
      for (const jobId of await jobs.getAllKeys()) if (!needed.has(jobId)) await jobs.delete(jobId);
      await change.done;
    }, undefined);
  }

  /** Returns the ids of held jobs, without reading them. */
  async heldIds(): Promise<ReadonlySet<string>> {
    return new Set(await this.attempt((db) => db.getAllKeys('jobs'), []));
  }

  /** How long an event has waited, ms. Of one that a page before this kept, the clock of the device is all there is. */
  heldMs({ id, at }: JobEvent): number {
    const since = this.keptAt.get(id);
    return since === undefined ? Math.max(0, Date.now() - Date.parse(at)) : performance.now() - since;
  }

  /** Returns the taps that wait for this job, oldest first, in the words of today whatever version kept them. */
  waitingFor(jobId: string): Promise<JobEvent[]> {
    return this.attempt(async (db) => upgradeLog(await db.getAllFromIndex('waiting', 'jobId', jobId)), []);
  }

  /** @returns false where it could not be kept */
  async keepErrand(errand: Errand, photo: Blob | null): Promise<boolean> {
    const kept = photo && { bytes: await photo.arrayBuffer(), type: photo.type };
    return this.attempt(async (db) => {
      const change = db.transaction('errands', 'readwrite');
      const key = await change.store.index('id').getKey(errand.id);
      if (key === undefined) await change.store.add({ errand, photo: kept });
      await change.done;
      return true;
    }, false);
  }

  /** In the order they were kept. */
  async errands(): Promise<{ readonly errand: Errand; readonly photo: Blob | null }[]> {
    const kept = await this.attempt((db) => db.getAll('errands'), []);
    return kept.map(({ errand, photo }) => ({ errand, photo: photo && blobOf(photo) }));
  }

  /** Keeps the server's refusal of an errand; null: it is to be sent again. */
  tellErrand(id: string, why: string | null): Promise<void> {
    return this.attempt(async (db) => {
      const change = db.transaction('errands', 'readwrite');
      const key = await change.store.index('id').getKey(id);
      const kept = key === undefined ? undefined : await change.store.get(key);
      if (kept) await change.store.put({ ...kept, errand: { ...kept.errand, why } }, key);
      await change.done;
    }, undefined);
  }

  dropErrand(id: string): Promise<void> {
    return this.attempt(async (db) => {
      const key = await db.getKeyFromIndex('errands', 'id', id);
      if (key !== undefined) await db.delete('errands', key);
    }, undefined);
  }

  /** Everything that waits on this device, in the order it was kept. */
  allWaiting(): Promise<{
    waiting: JobEvent[];
    parked: ParkedEvent[];
    refused: KeptRefusal[];
    errands: Errand[];
  }> {
    return this.attempt(
      async (db) => ({
        waiting: upgradeLog(await db.getAll('waiting')),
        parked: await db.getAll('parked'),
        refused: (await db.getAll('refused')).sort((a, b) => a.at.localeCompare(b.at)),
        errands: (await db.getAll('errands')).map(({ errand }) => errand),
      }),
      { waiting: [], parked: [], refused: [], errands: [] },
    );
  }
}

function blobOf(photo: KeptPhoto | Blob): Blob {
  return photo instanceof Blob ? photo : new Blob([photo.bytes], { type: photo.type });
}

/** Once, however often it is asked for. */
async function keepIn(db: IDBPDatabase<DeviceSchema>, event: JobEvent): Promise<void> {
  const change = db.transaction('waiting', 'readwrite');
  const key = await change.store.index('eventId').getKey(event.id);
  if (key === undefined) await change.store.add(event);
  await change.done;
}

/** The log with this entry in its place; once however often it comes. */
export function withEntry(logged: readonly LoggedEvent[], entry: LoggedEvent): LoggedEvent[] {
  const others = logged.filter((l) => l.event.id !== entry.event.id);
  return [...others, entry].sort((a, b) => a.revision - b.revision);
}

type Change = IDBPTransaction<DeviceSchema, Stores, 'versionchange'>;

async function carryOver(db: IDBPDatabase<DeviceSchema>, change: Change): Promise<void> {
  const old = await change.objectStore('outbox').getAll();
  for (const { event } of old.sort((a, b) => a.order - b.order)) {
    await change.objectStore('waiting').add(event);
  }
  db.deleteObjectStore('outbox');
}
