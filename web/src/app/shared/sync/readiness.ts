import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { boardCopy, jobsOn } from '../data/board';
import { DeviceStore } from './device-store';

/** The copies that a rescue without network reads, by the address that the service worker keeps each under. */
const COPIES = {
  application: '/index.html',
  atlas: '/api/device',
  rules: '/api/rules',
  kit: '/api/vans',
} as const;

/** One thing that a time without network needs. */
export interface Need {
  readonly name: keyof typeof COPIES | 'jobs';
  readonly isHere: boolean;
  /** When its copy was made, ISO 8601; null where that is not known. */
  readonly at: string | null;
}

/** Tells whether this device is ready for a time without network, and what is missing. */
@Injectable({ providedIn: 'root' })
export class Readiness {
  private readonly device = inject(DeviceStore);
  private readonly board = inject(Store).selectSignal(boardCopy.selectCopy);
  private readonly found = signal<readonly Need[] | null>(null);
  private readonly persisted = signal<boolean | null>(null);

  /** Null until it was looked. */
  readonly needs = this.found.asReadonly();
  readonly isReady = computed(() => this.found()?.every(({ isHere }) => isHere) ?? null);
  /** Whether the browser promised to delete none of it; null while it was not asked. */
  readonly isPersisted = this.persisted.asReadonly();

  /** Looks what is here. A browser without a service worker or a store has nothing. */
  async look(): Promise<void> {
    const copies = await Promise.all(
      (Object.keys(COPIES) as (keyof typeof COPIES)[]).map((name) => copyOf(name, COPIES[name])),
    );
    const held = await this.device.heldIds();
    this.found.set([
      ...copies,
      { name: 'jobs', isHere: jobsOn(this.board()).every((id) => held.has(id)), at: null },
    ]);
    this.persisted.set(await persistence('persisted'));
  }

  /** Asks the browser to delete nothing of this application when it runs out of room. Use it once a job is open here. */
  async askToPersist(): Promise<void> {
    this.persisted.set(await persistence('persist'));
  }
}

async function copyOf(name: keyof typeof COPIES, address: string): Promise<Need> {
  const isServed = 'serviceWorker' in navigator && navigator.serviceWorker.controller !== null;
  const kept = isServed ? await caches.match(address).catch(() => undefined) : undefined;
  const date = kept?.headers.get('date') ?? null;
  return { name, isHere: kept !== undefined, at: date && new Date(date).toISOString() };
}

/** Null where the browser does not say. */
async function persistence(act: 'persist' | 'persisted'): Promise<boolean | null> {
  try {
    return await navigator.storage[act]();
  } catch {
    return null;
  }
}
