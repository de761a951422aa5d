import {
  type CapturePart,
  type Instrument,
  type InstrumentNow,
  INSTRUMENT_RANGES,
  INSTRUMENTS,
  type LinkState,
  READ_EVERY_MS,
} from '@voltrek/contracts';
import { type Address, isBeyond, LinkError, OVERLOAD, type ScpiLink, scpiLink } from './scpi-link.js';

/** Addresses of what is linked. */
export type Addresses = Readonly<Partial<Record<Instrument, Address>>>;

/** The input of a live reading. */
const QUERIES: Record<Instrument, string> = {
  meter: 'MEAS:VOLT:DC?',
  clamp: 'MEAS:CURR:DC?',
  tester: 'MEAS:CCA?',
};
/** A capture: points of the fast buffer a second, at most so long, read off so often. */
const CAPTURE_STEP_S = 0.002;
const CAPTURE_SECONDS_MOST = 30;
const CAPTURE_READ_MS = 250;
const PART_MOST = 5000;
/** The figures that a capture reads side by side. */
const CAPTURED: readonly Instrument[] = ['meter', 'clamp'];

/** The state of one instrument. */
interface Line {
  readonly link: ScpiLink;
  readonly isStandIn: boolean;
  /** It got its part to play, or there was none to send, since it came back last. */
  knows: boolean;
}

/** The linked instruments: what each reads now, and a fast capture of a try. */
export interface Bench {
  readonly now: () => InstrumentNow[];
  /** Calls back with each instrument as it changes, until the returned function is called. Nothing is read while nobody watches. */
  readonly watch: (listener: (now: InstrumentNow) => void) => () => void;
  /** One reading, asked for now. @throws LinkError when it does not come, or probes moved meanwhile */
  readonly read: (instrument: Instrument) => Promise<InstrumentNow>;
  /** Says what is there to be read to every stand-in, and again to one that comes back. */
  readonly tellAll: (command: string) => void;
  /** Listens at another address from now on, or at none. */
  readonly link: (instrument: Instrument, address: Address | null) => void;
  /** Somebody captures: the buffer is taken. */
  readonly isBusy: () => boolean;
  /** Fills the meter's fast buffer and hands it on part by part. @throws LinkError when the meter goes */
  readonly capture: (
    seconds: number,
    onPart: (part: CapturePart) => void,
    isWanted: () => boolean,
  ) => Promise<void>;
  readonly close: () => void;
}

/**
 * @param addresses where it listens at first; {@link Bench.link} changes that
 * @param answerMs the longest that an instrument may take over one answer, ms
 */
export function openBench(addresses: Addresses = {}, answerMs?: number): Bench {
  const listeners = new Set<(now: InstrumentNow) => void>();
  const latest = new Map<Instrument, InstrumentNow>();
  const lines = new Map<Instrument, Line>();
  let played: string | null = null;
  let isCapturing = false;
  let closed = false;
  /** Grows whenever what was read before no longer counts; a reading that was under way then is dropped. */
  let era = 0;

  const say = (instrument: Instrument, value: number | null): void => {
    const link = lines.get(instrument)?.link;
    const isOver = value !== null && Math.abs(value) > OVERLOAD;
    const now: InstrumentNow = {
      instrument,
      state: link?.state() ?? 'off',
      name: nameFrom(link?.identity() ?? null),
      value: isOver ? null : value,
      overload: isOver,
      at: new Date().toISOString(),
    };
    latest.set(instrument, now);
    for (const listener of listeners) listener(now);
  };

  const forget = (): void => {
    era++;
    for (const instrument of INSTRUMENTS) say(instrument, null);
  };

  /** False where what was read no longer counts. */
  const read = async (instrument: Instrument, link: ScpiLink): Promise<boolean> => {
    const began = era;
    const value = await link.figure(QUERIES[instrument], INSTRUMENT_RANGES[instrument]);
    if (began !== era) return false;
    say(instrument, value);
    return true;
  };

  const isOn = (instrument: Instrument, link: ScpiLink): boolean =>
    !closed && lines.get(instrument)?.link === link;

  const poll = async (instrument: Instrument, link: ScpiLink): Promise<void> => {
    while (isOn(instrument, link)) {
      await pause(READ_EVERY_MS[instrument]);
      if (listeners.size === 0 || isCapturing || !isOn(instrument, link)) continue;
      try {
        await read(instrument, link);
      } catch (error) {
        if (!(error instanceof LinkError)) throw error;
        if (isOn(instrument, link)) say(instrument, null);
      }
    }
  };

  const changed = (instrument: Instrument, link: ScpiLink): void => {
    const line = lines.get(instrument);
    if (line?.link !== link) return;
    const state = link.state();
    if (state === 'lost') line.knows = false;
    if (state === 'ready' && !line.knows) {
      line.knows = true;
      if (line.isStandIn && played !== null) link.tell(played);
    }
    say(instrument, null);
  };

  const link = (instrument: Instrument, address: Address | null): void => {
    era++;
    lines.get(instrument)?.link.close();
    lines.delete(instrument);
    if (address) {
      const opened = scpiLink(address, () => changed(instrument, opened), answerMs);
      lines.set(instrument, { link: opened, isStandIn: address.isStandIn ?? false, knows: false });
      void poll(instrument, opened);
    }
    say(instrument, null);
  };

  for (const instrument of INSTRUMENTS) link(instrument, addresses[instrument] ?? null);

  return {
    now: () => [...latest.values()],
    watch: (listener) => {
      // Nothing was read while nobody watched: what stands here is old.
      if (listeners.size === 0) forget();
      listeners.add(listener);
      for (const now of latest.values()) listener(now);
      return () => listeners.delete(listener);
    },
    read: async (instrument) => {
      const line = lines.get(instrument);
      if (!line) throw new LinkError('off');
      if (!(await read(instrument, line.link))) throw new LinkError('lost');
      return latest.get(instrument)!;
    },
    tellAll: (command) => {
      played = command;
      for (const { link: line, isStandIn, knows } of lines.values())
        if (isStandIn && knows) line.tell(command);
      forget();
    },
    link,
    isBusy: () => isCapturing,
    capture: async (seconds, onPart, isWanted) => {
      const meter = lines.get('meter')?.link;
      if (!meter) throw new LinkError('off' satisfies LinkState);
      const clamp = lines.get('clamp')?.link;
      const pair = clamp?.state() === 'ready' ? [meter, clamp] : [meter];
      const wanted = Math.min(seconds, CAPTURE_SECONDS_MOST);
      isCapturing = true;
      try {
        for (const link of pair) {
          link.tell('*CLS');
          link.tell(`SAMP:TIM ${CAPTURE_STEP_S}`);
          link.tell(`SAMP:COUN ${Math.round(wanted / CAPTURE_STEP_S)}`);
          link.tell('INIT');
        }
        await readOff(pair, Math.round(wanted / CAPTURE_STEP_S), onPart, isWanted);
      } finally {
        for (const link of pair) link.tell('ABOR');
        isCapturing = false;
      }
    },
    close: () => {
      closed = true;
      for (const line of lines.values()) line.link.close();
    },
  };
}

/** Reads the buffers off side by side until all points are here, or nobody wants more. */
async function readOff(
  pair: readonly ScpiLink[],
  points: number,
  onPart: (part: CapturePart) => void,
  isWanted: () => boolean,
): Promise<void> {
  let left = points;
  while (left > 0) {
    await pause(CAPTURE_READ_MS);
    const there = await Promise.all(pair.map((link) => link.figure('DATA:POIN?')));
    const count = Math.min(left, PART_MOST, ...there);
    if (count > 0) {
      const [volts = [], amps] = await Promise.all(pair.map((link, i) => removed(link, CAPTURED[i]!, count)));
      left -= count;
      onPart({ stepSeconds: CAPTURE_STEP_S, volts, amps: amps ?? null, done: left === 0 || !isWanted() });
    }
    if (!isWanted()) return;
  }
}

async function removed(link: ScpiLink, kind: Instrument, count: number): Promise<number[]> {
  const figures = (await link.ask(`DATA:REM? ${count}`)).split(',').map(Number);
  if (figures.length !== count || figures.some(Number.isNaN)) throw new LinkError('nonsense');
  if (figures.some((f) => isBeyond(f, INSTRUMENT_RANGES[kind]))) throw new LinkError('nonsense');
  return figures;
}

/** Maker and model of an identity: the first two of its four fields. */
function nameFrom(identity: string | null): string | null {
  return identity === null ? null : (identity.split(',')[1]?.trim() ?? identity).slice(0, 60);
}

const pause = (ms: number): Promise<void> =>
  new Promise((done) => {
    setTimeout(done, ms).unref();
  });
