import { effect, inject, signal, type Signal, untracked } from '@angular/core';
import type { Hazard } from '@voltrek/core/hookup';
import { plannedRescue, severeAhead } from '@voltrek/core/job';
import { Store } from '@ngrx/store';
import { selectOptions, selectSituation } from '../../../shared/job/job-selectors';
import { Frames } from '../../../shared/model/frames';

/**
 * The severe hazards that the hook-up of each fitting option will meet, by option id: what Hook up says at its steps, Plan says before one is
 * chosen. Worked out one option at a time while nothing else is asked.
 */
export function stopsAhead(): Signal<Readonly<Record<string, readonly Hazard[]>>> {
  const store = inject(Store);
  const situation = store.selectSignal(selectSituation);
  const options = store.selectSignal(selectOptions);
  const frames = inject(Frames);
  const found = signal<Readonly<Record<string, readonly Hazard[]>>>({});
  effect((onCleanup) => {
    const of = situation();
    const fitting = options().filter(({ unfit }) => unfit === null);
    const gone = new AbortController();
    onCleanup(() => gone.abort());
    untracked(() => found.set({}));
    void (async () => {
      for (const { option, chargeMinutes } of fitting) {
        await frames.after('idle');
        if (gone.signal.aborted || !of) return;
        const plan = { optionId: option.id, waitMinutes: chargeMinutes };
        const rescue = plannedRescue(of, plan);
        const severe = rescue ? severeAhead(rescue, of) : [];
        if (severe.length > 0) found.update((all) => ({ ...all, [option.id]: severe }));
      }
    })();
  });
  return found.asReadonly();
}
