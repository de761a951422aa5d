import { inject } from '@angular/core';
import {
  type CapturePart,
  INSTRUMENTS,
  type Instrument,
  type InstrumentNow,
  type ProbesPlaced,
} from '@voltrek/contracts';
import type { Recording } from '@voltrek/core/trace';
import { Api } from '../../../shared/state/api';
import { CAPTURE_END_WORDS } from '@words/measure-words';
import { patchState, signalStore, withHooks, withMethods, withState } from '@ngrx/signals';
import { LIVE_STORE as T } from '@words/screens/job-stages-measure';

const LINE_BROKE = T.theLineToTheServerBroke;

interface LiveState {
  readonly byInstrument: Readonly<Partial<Record<Instrument, InstrumentNow>>>;
  /** The server told of instruments, or the line to it broke. */
  readonly connected: boolean;
  /** Values kept still while they are looked at. */
  readonly held: Readonly<Partial<Record<Instrument, number>>>;
  /** Points captured so far; null when nothing is being captured. */
  readonly captured: number | null;
  readonly lowestVolts: number | null;
  readonly captureProblem: string | null;
}

const nothing: LiveState = {
  byInstrument: {},
  connected: false,
  held: {},
  captured: null,
  lowestVolts: null,
  captureProblem: null,
};

/** What the linked instruments read now. Listens while its component lives. */
export const LiveStore = signalStore(
  withState(nothing),
  withMethods((store, api = inject(Api)) => ({
    hear(now: InstrumentNow): void {
      patchState(store, {
        byInstrument: { ...store.byInstrument(), [now.instrument]: now },
        connected: true,
      });
    },
    /** Where hands put the probes: stand-ins must be told, real instruments know. */
    place(placed: ProbesPlaced): void {
      api.placeProbes(placed).subscribe({ error: () => undefined });
    },
    setConnected(connected: boolean): void {
      patchState(store, { connected });
    },
    hold(instrument: Instrument): void {
      const value = store.byInstrument()[instrument]?.value;
      const { [instrument]: kept, ...others } = store.held();
      if (kept !== undefined) patchState(store, { held: others });
      else if (value != null) patchState(store, { held: { ...others, [instrument]: value } });
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
            () => end(LINE_BROKE),
            () => end(LINE_BROKE),
          );
      });
    },
  })),
  withHooks((store) => {
    let source: EventSource | undefined;
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
        document.addEventListener('visibilitychange', follow);
      },
      onDestroy() {
        document.removeEventListener('visibilitychange', follow);
        close();
      },
    };
  }),
);
