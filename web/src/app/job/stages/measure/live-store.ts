import { inject } from '@angular/core';
import {
  type CapturePart,
  INSTRUMENTS,
  type Instrument,
  type InstrumentNow,
  oldAfterMs,
  type ProbesPlaced,
} from '@voltrek/contracts';
import type { Recording } from '@voltrek/core/trace';
import { Api } from '../../../shared/data/api';
import { CAPTURE_END_WORDS } from '@words/measure-words';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { LIVE_STORE as T } from '@words/screens/job-stages-measure';

/** How often the age of the shown values is drawn anew, ms. */
const CLOCK_MS = 500;

/** An instrument as received, and when: the server's clock may be another. */
export interface ReceivedReading extends InstrumentNow {
  /** Since the page began, as everything in ms here. */
  readonly receivedMs: number;
}

interface LiveState {
  readonly byInstrument: Readonly<Partial<Record<Instrument, ReceivedReading>>>;
  /** The server sent instruments, or the line to it broke. */
  readonly connected: boolean;
  /** Now, for the ages. */
  readonly clockMs: number;
  /** Values of earlier moments are of another place, or of before a break; Infinity while the probes are on their way. */
  readonly countsFromMs: number;
  /** Values kept still while they are looked at. */
  readonly held: Readonly<Partial<Record<Instrument, ReceivedReading>>>;
  /** Points captured so far; null when nothing is being captured. */
  readonly captured: number | null;
  readonly lowestVolts: number | null;
  readonly captureProblem: string | null;
}

const nothing: LiveState = {
  byInstrument: {},
  connected: false,
  clockMs: 0,
  countsFromMs: 0,
  held: {},
  captured: null,
  lowestVolts: null,
  captureProblem: null,
};

/** The values of the linked instruments now. Listens while its component lives. */
export const LiveStore = signalStore(
  withState(nothing),
  withMethods((store, api = inject(Api)) => {
    let places = 0;
    return {
      hear(now: InstrumentNow): void {
        const receivedMs = performance.now();
        patchState(store, {
          byInstrument: { ...store.byInstrument(), [now.instrument]: { ...now, receivedMs } },
          connected: true,
          clockMs: receivedMs,
        });
      },
      tick(): void {
        patchState(store, { clockMs: performance.now() });
      },
      /** The instrument that is linked and reads; null for none. */
      nowOf(instrument: Instrument | null): ReceivedReading | null {
        const now = instrument && store.byInstrument()[instrument];
        return now && now.state !== 'off' ? now : null;
      },
      ageMs({ receivedMs }: ReceivedReading): number {
        return Math.max(0, store.clockMs() - receivedMs);
      },
      /** Received for the place where the probes are now, on the line that stands. */
      isOfHere({ receivedMs }: ReceivedReading): boolean {
        return store.connected() && receivedMs >= store.countsFromMs();
      },
      /** It is what the instrument shows now. */
      isFresh(now: ReceivedReading): boolean {
        return this.isOfHere(now) && this.ageMs(now) <= oldAfterMs(now.instrument);
      },
      /** Tells the places of the probes: stand-ins need them, real instruments know. Earlier values count no more until then, held still or not. */
      place(placed: ProbesPlaced): void {
        const mine = ++places;
        const arrive = (): void => {
          if (mine === places) patchState(store, { countsFromMs: performance.now() });
        };
        patchState(store, { countsFromMs: Infinity, held: {} });
        api.placeProbes(placed).subscribe({ next: arrive, error: arrive });
      },
      setConnected(connected: boolean): void {
        patchState(
          store,
          connected
            ? { connected }
            : { connected, countsFromMs: Math.max(store.countsFromMs(), performance.now()) },
        );
      },
      hold(instrument: Instrument): void {
        const now = store.byInstrument()[instrument];
        const { [instrument]: kept, ...others } = store.held();
        if (kept !== undefined) patchState(store, { held: others });
        else if (now?.value != null && this.isFresh(now))
          patchState(store, { held: { ...others, [instrument]: now } });
      },
      release(): void {
        patchState(store, { held: {} });
      },
      /** Fills the meter's fast buffer while somebody cranks, until it is full or stopped. Null when it was lost, or nothing came. */
      capture(jobId: string, until: AbortSignal): Promise<Recording | null> {
        const volts: number[] = [];
        const amps: number[] = [];
        let stepSeconds = 0;
        let hasAmps = true;
        patchState(store, { captured: 0, lowestVolts: null, captureProblem: null });
        return new Promise((done) => {
          const stopped = new AbortController();
          let isOver = false;
          const end = (problem: string | null): void => {
            if (isOver) return;
            isOver = true;
            stopped.abort();
            patchState(store, { captured: null, captureProblem: problem });
            const isKept = problem === null && volts.length > 0;
            done(
              isKept
                ? {
                    seconds: Float64Array.from(volts, (_, i) => i * stepSeconds),
                    volts: Float64Array.from(volts),
                    amps: hasAmps ? Float64Array.from(amps) : null,
                  }
                : null,
            );
          };
          until.addEventListener('abort', () => end(null), { once: true });
          const hear = (part: CapturePart): void => {
            stepSeconds = part.stepSeconds;
            volts.push(...part.volts);
            if (part.amps) amps.push(...part.amps);
            else hasAmps = false;
            const lowest = Math.min(store.lowestVolts() ?? Infinity, ...part.volts);
            patchState(store, { captured: volts.length, lowestVolts: lowest });
            if (part.done) end(null);
          };
          api
            .capture(jobId, stopped.signal, (line) => {
              if ('part' in line) hear(line.part);
              else end(CAPTURE_END_WORDS[line.lost]);
            })
            .then(
              () => end(T.lineBroke),
              () => end(T.lineBroke),
            );
        });
      },
    };
  }),
  withHooks((store) => {
    let source: EventSource | undefined;
    let clock: ReturnType<typeof setInterval> | undefined;
    const close = (): void => {
      source?.close();
      source = undefined;
    };
    const open = (): void => {
      if (source) return;
      source = new EventSource('/api/instruments/stream');
      source.onmessage = ({ data }) => {
        const now = JSON.parse(String(data)) as InstrumentNow;
        if (INSTRUMENTS.includes(now.instrument)) store.hear(now);
      };
      source.onerror = () => store.setConnected(false);
    };
    // A browser has few connections for a host: a page that nobody sees needs none of them, and its values grow old in plain sight.
    const follow = (): void => {
      if (!document.hidden) open();
      else {
        close();
        store.setConnected(false);
      }
    };
    return {
      onInit() {
        follow();
        clock = setInterval(store.tick, CLOCK_MS);
        document.addEventListener('visibilitychange', follow);
      },
      onDestroy() {
        document.removeEventListener('visibilitychange', follow);
        clearInterval(clock);
        close();
      },
    };
  }),
);
