import { Injectable } from '@angular/core';
import { type JobEvent, upgradeLog } from '@voltrek/core/job';
import { type DBSchema, type IDBPDatabase, type IDBPTransaction, openDB } from 'idb';

interface OutboxSchema extends DBSchema {
  /** Keys count up as events are kept, so that they are sent in the order they happened: a clock may stand still, or be set back. */
  waiting: { key: number; value: JobEvent; indexes: { eventId: string; jobId: string } };
  /** As it was before keys counted up. */
  outbox: { key: string; value: { readonly order: number; readonly event: JobEvent } };
}

/** Events that the server has not acknowledged yet, kept on this device across a reload or a flat tablet. */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private opening: Promise<IDBPDatabase<OutboxSchema>> | undefined;
  /** When what waits was kept, by a clock that nobody sets; only since this page was opened. */
  private readonly keptAt = new Map<string, number>();

  private database(): Promise<IDBPDatabase<OutboxSchema>> {
    this.opening ??= openDB<OutboxSchema>('voltrek', 2, {
      upgrade: (db, oldVersion, _newVersion, change) => {
        const store = db.createObjectStore('waiting', { autoIncrement: true });
        store.createIndex('eventId', 'id', { unique: true });
        store.createIndex('jobId', 'jobId');
        // What waits on this device from before the change is carried over.
        if (oldVersion === 1) void carryOver(db, change);
      },
      // A newer page in another tab wants to change it: this one opens it anew when it next needs it.
      blocking: (_now, _wanted, event) => {
        (event.target as IDBDatabase).close();
        this.opening = undefined;
      },
    });
    return this.opening;
  }

  async keep(event: JobEvent): Promise<void> {
    this.keptAt.set(event.id, performance.now());
    await (await this.database()).add('waiting', event);
  }

  async drop(eventId: string): Promise<void> {
    this.keptAt.delete(eventId);
    const change = (await this.database()).transaction('waiting', 'readwrite');
    const key = await change.store.index('eventId').getKey(eventId);
    if (key !== undefined) await change.store.delete(key);
    await change.done;
  }

  /** How long an event has waited, ms. Of one that a page before this kept, the clock of the device is all there is. */
  heldMs({ id, at }: JobEvent): number {
    const since = this.keptAt.get(id);
    return since === undefined ? Math.max(0, Date.now() - Date.parse(at)) : performance.now() - since;
  }

  /** What waits for this job, oldest first, in the words of today whatever version kept it. */
  async waitingFor(jobId: string): Promise<JobEvent[]> {
    return upgradeLog(await (await this.database()).getAllFromIndex('waiting', 'jobId', jobId));
  }
}

type Change = IDBPTransaction<OutboxSchema, ('waiting' | 'outbox')[], 'versionchange'>;

async function carryOver(db: IDBPDatabase<OutboxSchema>, change: Change): Promise<void> {
  const old = await change.objectStore('outbox').getAll();
  for (const { event } of old.sort((a, b) => a.order - b.order)) {
    await change.objectStore('waiting').add(event);
  }
  db.deleteObjectStore('outbox');
}
