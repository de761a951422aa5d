import { aloneRescue, modelBattery } from '../circuit/index.js';
import { crankPoint, firesAt } from '../crank/index.js';
import { defaultStarter, type Starter } from '../engine/index.js';
import type { MachineClass } from '../machine/index.js';
import { pick, type Random, seededRandom } from '../quantities/index.js';
import { templateOf } from '../template/index.js';
import { recordTry } from './recorded-try.js';

export const TRACE_STORIES = ['sound', 'flat', 'spent', 'held-fast', 'no-contact', 'no-charge'] as const;
/** The story of a trace of a try: all well, or the one thing that is wrong. */
export type TraceStory = (typeof TRACE_STORIES)[number];

/** The trace of a try at the posts. */
export interface TraceDrill {
  readonly kind: 'trace';
  readonly machineClass: MachineClass;
  readonly tempC: number;
  /** Volts at the posts by seconds, as a meter logs them. */
  readonly points: readonly (readonly [seconds: number, volts: number])[];
  /** When its key was turned to start, and let go, s. */
  readonly crank: { readonly fromSeconds: number; readonly toSeconds: number };
  readonly restVolts: number;
  readonly leastVolts: number;
  /** At the end, when whatever charges has come in. */
  readonly lastVolts: number;
  /** Zero where it does not turn. */
  readonly rpm: number;
  readonly neededRpm: number;
  readonly choices: readonly TraceStory[];
  readonly right: number;
}

const CLASSES: readonly MachineClass[] = ['car', 'van', 'motorcycle'];
const REST_SECONDS = 1.5;
const KEY_ON_SECONDS = 1;
const AFTER_SECONDS = 3;
const LOGGED_EVERY_SECONDS = 0.02;
/** A meter's own error on a reading, V. */
const METER = { volts: 0.01, voltsStep: 0.01 } as const;
const CHOICES = 4;

interface Played {
  readonly soc: readonly [number, number];
  readonly ageing: readonly [number, number];
  /** Whether it must fire, must not, or cannot for another reason. */
  readonly fires: boolean | null;
  readonly starter: (sound: Starter) => Starter;
  readonly seconds: number;
  readonly chargingVolts: number | null;
}
/** A battery in order whose starter has its contact for two seconds, in vain. */
const IN_VAIN: Played = {
  ...{ soc: [0.75, 0.95], ageing: [1, 1.4], fires: null, seconds: 2, chargingVolts: null },
  starter: (sound) => sound,
};
const SOUND: Played = { ...IN_VAIN, ageing: [1, 1.3], fires: true, seconds: 1, chargingVolts: 14.2 };
/** The parts of each story. A starter that is held fast has its current and no turn; one without contact has neither. */
const PLAYED: Readonly<Record<TraceStory, Played>> = {
  sound: SOUND,
  'no-charge': { ...SOUND, chargingVolts: null },
  flat: { ...IN_VAIN, soc: [0.02, 0.12], ageing: [1, 1.5], fires: false },
  spent: { ...IN_VAIN, ageing: [2.5, 9], fires: false },
  'held-fast': { ...IN_VAIN, starter: (sound) => ({ ...sound, efficiency: sound.efficiency * 0.05 }) },
  'no-contact': { ...IN_VAIN, starter: (sound) => ({ ...sound, ohms: sound.ohms * 200 }) },
};

/** A trace to be read; null where what was drawn is too near to call. */
export function drawTrace(random: Random): TraceDrill | null {
  const machineClass = pick(random, CLASSES);
  const { engine, batteries } = templateOf(machineClass);
  if (!engine) return null;
  const { rating } = batteries[0]!;
  const story = pick(random, TRACE_STORIES);
  const { soc, ageing, fires, starter: change, seconds, chargingVolts } = PLAYED[story];
  const between = ([low, high]: readonly [number, number]): number => low + (high - low) * random();
  const tempC = Math.round(-15 + 30 * random());
  const state = { soc: between(soc), tempC, ageing: between(ageing) };
  const rescue = aloneRescue([modelBattery(rating, state)], tempC);
  const starter = change(defaultStarter(engine));
  const point = crankPoint(rescue, engine, starter);
  if (fires !== null && firesAt(point) !== fires) return null;
  // One that does not even turn its engine looks like a starter held fast: only amps would tell.
  if (story === 'spent' && !point.turns) return null;
  const logged = recordTry(
    {
      crank: { rescue, batteries: [{ rating, state }], engine, starter, seconds },
      ...{
        restSeconds: REST_SECONDS,
        keyOnAmps: 5,
        keyOnSeconds: KEY_ON_SECONDS,
        afterSeconds: AFTER_SECONDS,
      },
      ...{ chargingVolts, stepSeconds: LOGGED_EVERY_SECONDS },
    },
    { ...METER, random: seededRandom(Math.floor(random() * 1e9)) },
  );
  const points = Array.from(logged.seconds, (s, i) => [s, logged.volts[i]!] as const);
  const fromSeconds = REST_SECONDS + KEY_ON_SECONDS;
  const others = TRACE_STORIES.filter((other) => other !== story);
  while (others.length > CHOICES - 1) others.splice(Math.floor(random() * others.length), 1);
  const right = Math.floor(random() * CHOICES);
  return {
    ...{ kind: 'trace', machineClass, tempC, points },
    crank: { fromSeconds, toSeconds: fromSeconds + seconds },
    restVolts: points[0]![1],
    leastVolts: Math.min(...points.map(([, volts]) => volts)),
    lastVolts: points.at(-1)![1],
    rpm: point.turns ? point.rpm : 0,
    neededRpm: point.neededRpm,
    choices: [...others.slice(0, right), story, ...others.slice(right)],
    right,
  };
}
