import type { Server } from 'node:net';
import { normal, seededRandom } from '@voltrek/core/quantities';
import { figureOf, scpiFigure, ScpiError, scpiServer } from './scpi.js';
import { parseSetup, type World, worldOf } from './truth.js';

/** Seconds, from any zero. */
export type Clock = () => number;

/** A meter's own error on top of the truth. */
interface Kind {
  readonly identity: string;
  /** Header of its quick question. */
  readonly query: string;
  readonly of: (world: World, seconds: number) => number;
  readonly range: number;
  readonly step: number;
  readonly noise: number;
}

const NOTHING_ON_IT = 0;
/** The answer of SCPI instruments when the range is passed. */
const OVERLOAD = 9.9e37;
const BUFFER_MOST = 200_000;
const DATA_STALE = -230;

const KINDS: Record<'meter' | 'clamp', Kind> = {
  meter: {
    identity: 'Voltrek,Stand-in multimeter,SIM-1,1.0',
    query: 'MEASure:VOLTage:DC?',
    of: (world, seconds) => world.volts(seconds),
    range: 60,
    step: 0.001,
    noise: 0.004,
  },
  clamp: {
    identity: 'Voltrek,Stand-in current clamp,SIM-2,1.0',
    query: 'MEASure:CURRent:DC?',
    of: (world, seconds) => world.amps(seconds),
    range: 1500,
    step: 0.001,
    noise: 0.0015,
  },
};

/**
 * A multimeter or a current clamp: quick questions, and a fast buffer that is filled from `INITiate` and read while it fills.
 * `SIMulate:SETup` puts its probes on a machine; a real meter does not know that one and says so in its error queue.
 */
export function meterServer(kind: 'meter' | 'clamp', now: Clock): Server {
  const { identity, query, of, range, step, noise } = KINDS[kind];
  const random = seededRandom(kind === 'meter' ? 5 : 6);
  let world: World | null = null;
  let phaseAt = now();
  let count = 1;
  let every = 0.001;
  /** When the buffer began to fill, and how many of its points have been read. */
  let fill: { readonly at: number; read: number } | null = null;

  const read = (seconds: number): number => {
    const truth = world ? of(world, seconds) : NOTHING_ON_IT;
    const shown = Math.round(normal(random, truth, noise * (1 + Math.abs(truth) / 50)) / step) * step;
    return Math.abs(shown) > range ? OVERLOAD : shown;
  };
  const filled = (): number =>
    fill ? Math.min(count, Math.floor((now() - fill.at) / every)) - fill.read : 0;

  return scpiServer(identity, {
    '*RST': () => {
      count = 1;
      every = 0.001;
      fill = null;
      return null;
    },
    [query]: () => scpiFigure(read(now() - phaseAt)),
    'SAMPle:COUNt': (argument) => {
      count = figureOf(argument, 1, BUFFER_MOST);
      return null;
    },
    'SAMPle:TIMer': (argument) => {
      every = figureOf(argument, 0.0005, 10);
      return null;
    },
    INITiate: () => {
      fill = { at: now(), read: 0 };
      return null;
    },
    ABORt: () => {
      fill = null;
      return null;
    },
    'DATA:POINts?': () => String(filled()),
    'DATA:REMove?': (argument) => {
      const wanted = Math.min(figureOf(argument, 1, BUFFER_MOST), filled());
      if (!fill || wanted < 1) throw new ScpiError(DATA_STALE, 'Data corrupt or stale');
      const from = fill.read;
      fill.read += wanted;
      const began = fill.at - phaseAt;
      return Array.from({ length: wanted }, (_, i) => scpiFigure(read(began + (from + i) * every))).join(',');
    },
    'SIMulate:SETup': (argument) => {
      world = worldOf(parseSetup(argument));
      phaseAt = now();
      return null;
    },
  });
}
