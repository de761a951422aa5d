import { inject, Injectable, signal } from '@angular/core';
import type { WatchedVehicle, WatchPage } from '@voltrek/contracts';
import type { Night, Outlook } from '@voltrek/core/belief';
import type { HouseRules } from '@voltrek/core/rules';
import { firstValueFrom } from 'rxjs';
import { Api } from '../shared/data/api';
import { problemText } from '../shared/data/problem';
import { PlanRunner } from '../workers/plan-runner';

/** A vehicle with its outlook. */
export interface Watched {
  readonly vehicle: WatchedVehicle;
  readonly outlook: Outlook;
}

/** Weighs every vehicle of the house against the nights to come, page by page in the worker. Dies with its component. */
@Injectable()
export class WatchStore {
  private readonly api = inject(Api);
  private readonly runner = inject(PlanRunner);
  /** Vehicles weighed so far. */
  readonly watched = signal<readonly Watched[]>([]);
  readonly isWeighing = signal(false);
  readonly problem = signal<string | null>(null);

  /** Weighs all vehicles anew. Another round ends the one before. */
  async weigh(nights: readonly Night[], rules: HouseRules): Promise<void> {
    const run = this.runner.begin();
    this.watched.set([]);
    this.problem.set(null);
    this.isWeighing.set(true);
    try {
      let after: string | null = '';
      while (after !== null && run.isCurrent()) {
        const page: WatchPage = await firstValueFrom(this.api.watch(after));
        const outlooks = await run.ask((worker) =>
          worker.outlooks(
            page.vehicles.map(({ standing }) => standing),
            nights,
            rules,
          ),
        );
        if (!run.isCurrent()) return;
        const next = page.vehicles.map((vehicle, i) => ({ vehicle, outlook: outlooks[i]! }));
        this.watched.update((known) => [...known, ...next]);
        after = page.next;
      }
    } catch (error) {
      if (run.isCurrent()) this.problem.set(problemText(error));
    }
    if (run.isCurrent()) this.isWeighing.set(false);
  }
}
