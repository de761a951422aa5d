import { inject } from '@angular/core';
import type { Instrument, InstrumentAddresses, InstrumentNow } from '@voltrek/contracts';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import { catchError, EMPTY, exhaustMap, pipe, type Observable, switchMap, tap, timer } from 'rxjs';
import { Api } from '../shared/data/api';
import { problemText } from '../shared/data/problem';

/** How often it is looked how the lines stand, ms. */
const LOOK_EVERY_MS = 2_000;

interface LinksState {
  readonly now: readonly InstrumentNow[];
  /** The addresses, which only a crew lead sees. */
  readonly addresses: InstrumentAddresses | null;
  readonly isBusy: boolean;
  readonly problem: string | null;
}

const nothing: LinksState = { now: [], addresses: null, isBusy: false, problem: null };

/** The instruments that hang on this server: how their lines stand, and where they listen. */
export const InstrumentLinks = signalStore(
  withState(nothing),
  withMethods((store, api = inject(Api)) => {
    const failed = (error: unknown): Observable<never> => {
      patchState(store, { problem: problemText(error), isBusy: false });
      return EMPTY;
    };
    const publish = (addresses: InstrumentAddresses): void =>
      patchState(store, { addresses, isBusy: false, problem: null });
    return {
      /** Looks how the lines stand, now and every so many ms. */
      look: rxMethod<number>(
        pipe(
          switchMap((everyMs) => timer(0, everyMs)),
          // Without a server the last copy stands; the bar says that there is none.
          exhaustMap(() => api.instruments().pipe(catchError(() => EMPTY))),
          tap((now) => patchState(store, { now })),
        ),
      ),
      /** Asks where they listen, for a crew lead; for others that is forgotten. */
      tellTo: rxMethod<boolean>(
        switchMap((isLead) => {
          patchState(store, { addresses: null, problem: null });
          return isLead ? api.instrumentAddresses().pipe(tap(publish), catchError(failed)) : EMPTY;
        }),
      ),
      link(instrument: Instrument, typed: string | null, by: string): void {
        const address = typed?.trim() ?? null;
        patchState(store, { isBusy: true, problem: null });
        api
          .linkInstrument(instrument, { address, by })
          .pipe(catchError(failed))
          .subscribe((addresses) => publish(addresses));
      },
      addressOf: (instrument: Instrument) =>
        store.addresses()?.addresses.find((one) => one.instrument === instrument) ?? null,
    };
  }),
  withHooks({ onInit: (store) => store.look(LOOK_EVERY_MS) }),
);
