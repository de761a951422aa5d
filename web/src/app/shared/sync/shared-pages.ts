import { inject, Injectable } from '@angular/core';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { JobActions } from '../model/job-state';
import { PageActions } from '../model/across-pages';
import { StreamLine } from '../data/stream-line';
import { DeviceActions } from './device-state';

/** Actions of a page that change what all pages of a device show: taps, and the server's answers to them. */
const SHARED = [
  JobActions.reported,
  JobActions.acknowledged,
  JobActions.refused,
  JobActions.leftUnsent,
  JobActions.refusalRead,
  DeviceActions.parked,
  DeviceActions.sendAgain,
  DeviceActions.dropped,
  DeviceActions.errandKept,
  DeviceActions.errandGone,
  DeviceActions.errandTold,
] as const;

/** Keeps the pages of one device on the same: each sees the taps of the others at once, and the bar tells of the device. */
@Injectable({ providedIn: 'root' })
export class SharedPages {
  private readonly line = inject(StreamLine);
  private readonly store = inject(Store);
  private readonly actions = inject(Actions);

  start(): void {
    this.actions.pipe(ofType(...SHARED)).subscribe((action) => this.line.tellPages(action));
    this.line.ofPages.subscribe((action) => this.store.dispatch(PageActions.doneElsewhere({ action })));
  }
}
