import { inject, Injectable, signal } from '@angular/core';
import { SwUpdate, type VersionEvent } from '@angular/service-worker';

/** How often it is asked whether there is a newer version of the application, ms. */
const ASKS_EVERY_MS = 15 * 60_000;

/** A newer version is offered, never forced: a reload in mid-order is the technician's to choose. */
@Injectable({ providedIn: 'root' })
export class Versions {
  private readonly updates = inject(SwUpdate);
  private readonly reason = signal<'newer' | 'broken' | null>(null);
  /** Why a reload is asked for; null when it is not. */
  readonly reloadReason = this.reason.asReadonly();

  constructor() {
    if (!this.updates.isEnabled) return;
    this.updates.versionUpdates.subscribe((event: VersionEvent) => {
      if (event.type === 'VERSION_READY') this.reason.set('newer');
    });
    this.updates.unrecoverable.subscribe(() => this.reason.set('broken'));
    setInterval(() => void this.updates.checkForUpdate().catch(() => false), ASKS_EVERY_MS);
  }

  /** A part could not be loaded. */
  askForReload(): void {
    this.reason.set('broken');
  }

  reload(): void {
    document.location.reload();
  }

  later(): void {
    this.reason.set(null);
  }
}
