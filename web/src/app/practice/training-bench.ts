import { inject } from '@angular/core';
import type { Instrument, InstrumentNow } from '@voltrek/contracts';
import type { CaseReading } from '@voltrek/core/practice';
import { Api } from '../shared/data/api';
import { problemText } from '../shared/data/problem';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import { TRAINING_BENCH as T } from '@words/screens/practice';
import { firstValueFrom } from 'rxjs';

interface BenchState {
  /** Instruments that are linked and answer. */
  readonly linked: readonly InstrumentNow[];
  /** Readings are taken from them, not from the case's own. */
  readonly isChosen: boolean;
  readonly isReading: boolean;
  readonly fault: string | null;
}

const nothing: BenchState = { linked: [], isChosen: false, isReading: false, fault: null };

/** Instruments of a training bench: linked to the server, and read in place of the case's own where somebody wants that. */
export const TrainingBench = signalStore(
  withState(nothing),
  withMethods((store, api = inject(Api)) => ({
    /** Looks what is linked; without a server nothing is. */
    async look(): Promise<void> {
      const all = await firstValueFrom(api.instruments()).catch(() => []);
      patchState(store, { linked: all.filter(({ state }) => state === 'ready') });
    },
    choose(isChosen: boolean): void {
      patchState(store, { isChosen, fault: null });
    },
    has: (instrument: Instrument): boolean =>
      store.linked().some((linked) => linked.instrument === instrument),
    /** The value of the instrument, to a thousandth; null where none came, with the reason. */
    async read(reading: CaseReading): Promise<number | null> {
      patchState(store, { isReading: true, fault: null });
      try {
        const { value } = await firstValueFrom(api.readInCase(reading));
        if (value === null) patchState(store, { fault: T.pastItsRange });
        return value === null ? null : Math.round(value * 1000) / 1000;
      } catch (error) {
        patchState(store, { fault: problemText(error) });
        return null;
      } finally {
        patchState(store, { isReading: false });
      }
    },
  })),
);
