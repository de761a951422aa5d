import { inject, Injectable, signal } from '@angular/core';
import type { BoardCall, CallOutset, Van } from '@voltrek/contracts';
import { bestSources, findingsOfJob, foldJob, planCases, rankForJob, situationOf } from '@voltrek/core/job';
import { optionName } from '@words/option-name';
import { firstValueFrom } from 'rxjs';
import { Api } from '../shared/data/api';
import { Finder } from '../shared/data/finder';
import { newEvent } from '../shared/job/new-event';
import { openedFrom } from '../shared/job/open-job';
import { Frames } from '../shared/model/frames';
import { PlanRunner, type PlanRun } from '../workers/plan-runner';

/** Machines that the odds of a van are read from: enough to tell vans apart by ten in a hundred. */
const MACHINES = 200;

/** How well the kit of a van fits a machine that nobody has looked at yet. */
export interface VanFit {
  /** Its best source by name; null where nothing on it fits. */
  readonly source: string | null;
  /** Odds that it starts the machine, 0 to 1; null for one that wakes. */
  readonly odds: number | null;
}

/** Finds the vans that fit a call: by the belief of its vehicle and what each van carries now. Dies with its component. */
@Injectable()
export class VanFits {
  private readonly api = inject(Api);
  private readonly finder = inject(Finder);
  private readonly frames = inject(Frames);
  private readonly runner = inject(PlanRunner);
  /** By van, as they are found. */
  readonly found = signal<ReadonlyMap<string, VanFit>>(new Map());
  readonly hasFailed = signal(false);

  async look(call: BoardCall, vans: readonly Van[]): Promise<void> {
    this.found.set(new Map());
    this.hasFailed.set(false);
    const run = this.runner.begin();
    try {
      const outset = await firstValueFrom(this.api.outset(call.id));
      for (const van of vans) {
        await this.frames.after('quiet');
        if (!run.isCurrent()) return;
        const fit = await this.fitOf(van, outset, run);
        if (!run.isCurrent()) return;
        this.found.update((found) => new Map(found).set(van.id, fit));
      }
    } catch {
      if (run.isCurrent()) this.hasFailed.set(true);
    }
  }

  private async fitOf(van: Van, outset: CallOutset, run: PlanRun): Promise<VanFit> {
    const { call, machine, rules, fitted, earlier, earlierFlatCalls } = outset;
    const lender = van.kit.find((item) => item.kind === 'donor');
    const donor = lender ? (await firstValueFrom(this.finder.entry(lender.modelId))).machine : null;
    const opened = { ...openedFrom(call, van.id, rules), ...(fitted && { fitted }) };
    const job = foldJob([newEvent(crypto.randomUUID(), '', 'job.opened', opened)])!;
    const situation = situationOf(job, { machine, donor, kit: van.kit, earlierFlatCalls, earlier }, rules);
    const ranked = rankForJob(situation);
    const cases = planCases(situation, ranked);
    const named = (one: (typeof ranked)[number], odds: number | null): VanFit => ({
      source: optionName(one, van.kit),
      odds,
    });
    if (!machine.engine) {
      const best = ranked.find(({ unfit }) => unfit === null);
      return best ? named(best, null) : { source: null, odds: null };
    }
    const findings = findingsOfJob(job, situation, ranked);
    let best: VanFit = { source: null, odds: null };
    for (const one of bestSources(ranked, cases)) {
      const { start } = await run.ask((worker, subscribe) =>
        worker.odds(
          cases.get(one.option.id)!,
          findings,
          MACHINES,
          subscribe(() => undefined),
        ),
      );
      if (start > (best.odds ?? 0)) best = named(one, start);
    }
    return best;
  }
}
