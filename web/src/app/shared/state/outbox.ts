import { Injectable } from '@angular/core';
import type { JobEvent } from '@voltrek/core';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

interface OutboxSchema extends DBSchema {
  outbox: { key: string; value: { readonly order: number; readonly event: JobEvent } };
}

/** Events that the server has not acknowledged yet, kept on this device across a reload or a flat tablet. */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private opening: Promise<IDBPDatabase<OutboxSchema>> | undefined;

  private database(): Promise<IDBPDatabase<OutboxSchema>> {
    this.opening ??= openDB<OutboxSchema>('voltrek', 1, {
      upgrade: (db) => {
        db.createObjectStore('outbox');
      },
    });
    return this.opening;
  }

  async keep(event: JobEvent): Promise<void> {
    await (await this.database()).put('outbox', { order: Date.parse(event.at), event }, event.id);
  }

  async drop(eventId: string): Promise<void> {
    await (await this.database()).delete('outbox', eventId);
  }

  /** What waits for this job, oldest first. */
  async waitingFor(jobId: string): Promise<JobEvent[]> {
    const all = await (await this.database()).getAll('outbox');
    return all
      .filter(({ event }) => event.jobId === jobId)
      .sort((a, b) => a.order - b.order)
      .map(({ event }) => event);
  }
}
