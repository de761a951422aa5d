import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { SessionActions } from '../data/session';
import { DeviceStore } from './device-store';

/** The caches of the service worker with answers of the server: by group, under the version's own name. */
const ANSWERS_CACHE = /:data:[^:]+:cache$/;

/** Clears a device of the house's data when somebody signs out of it. */
@Injectable({ providedIn: 'root' })
export class LeaveDevice {
  private readonly device = inject(DeviceStore);
  private readonly store = inject(Store);

  /**
   * Takes off this device what the server has too: jobs, with whose they are, and all that was kept of the house for a time with no
   * network. Unsent events and unread refusals stay, and so does the job that they are of: whoever signs in again sends it.
   */
  async empty(): Promise<void> {
    this.store.dispatch(SessionActions.crewChosen({ crewId: '' }));
    await this.device.forgetSettled();
    await forgetAnswers();
  }
}

/** Entry by entry: the service worker goes on writing into a cache that it has open. */
async function forgetAnswers(): Promise<void> {
  if (!('caches' in globalThis)) return;
  try {
    for (const name of (await caches.keys()).filter((key) => ANSWERS_CACHE.test(key))) {
      const cache = await caches.open(name);
      await Promise.all((await cache.keys()).map((request) => cache.delete(request)));
    }
  } catch {
    // Denied: then nothing was kept there either.
  }
}
