import { DRAW_SHARE } from '../../machine/index.js';
import { againstCrankLimit } from '../reading.js';
import type { DiagnosisProfile } from '../causes.js';
import { type HiddenMachine, ohmsInside, restVoltsOf } from '../hidden.js';
import {
  type CheckRows,
  type MeasureContext,
  cranks,
  wakes,
  rounded,
  perTwelve,
  OF_STRING,
  OF_BATTERY,
  LOST,
  MEASURE_RANGES,
  wornOf,
} from './check.js';

/**
 * Current of a car's lit dash, control units and fuel pump at key-on, A. At this a warm battery shows the trade's 0.3 V near a tenth of its
 * charge. A cold one shows it near a quarter.
 */
const KEY_ON_AMPS = 20;

/** How far worn plates still lie below their rest volts ten seconds after a try, V per time of growth. */
const SLOW_RECOVERY_VOLTS = 0.12;

/** Amps through the joints while they are read: cranking, or with lamps and units on where nothing cranks. */
function jointAmps(hidden: HiddenMachine, profile: DiagnosisProfile): number {
  if (wakes(profile)) return hidden.open ? 0 : LAMPS_AMPS * DRAW_SHARE[profile.machineClass];
  return hidden.crank?.starterAmps ?? 0;
}
/** Current of a car's lamps and units together, A. */
export const LAMPS_AMPS = 30;

/** Volts that the whole string loses when the key is turned on without cranking; none where the circuit is open. */
export function keyOnDrop(hidden: HiddenMachine, profile: DiagnosisProfile): number {
  if (hidden.open) return 0;
  const ohms = ohmsInside(hidden, profile).reduce((a, b) => a + b, 0);
  // No more can be lost than is there.
  const whole = restVoltsOf(hidden, profile).reduce((sum, volts) => sum + volts, 0);
  return Math.min(KEY_ON_AMPS * DRAW_SHARE[profile.machineClass] * ohms, Math.max(0, whole));
}

/** Volts lost over the joints of one side. */
const JOINT = {
  when: 'still',
  takesAmps: true,
  minutes: 1.2,
  needs: 'meter',
  outcomes: ['good', 'worth-cleaning', 'bad', 'very-bad'],
  edges: [0.2, 0.5, 2],
  spread: 0.05,
  shown: LOST,
  reason: 'the meter moves while it cranks, or with every lamp on where nothing cranks',
} as const;

/** Figures of the meter and the clamp while the engine stands. */
export const OF_METER = {
  rest: {
    when: 'still',
    isOfBattery: true,
    minutes: 1,
    needs: 'meter',
    outcomes: ['backward', 'under-3', 'under-9.5', 'under-10.5', 'flat', 'low', 'part', 'charged'],
    edges: [0, 3, 9.5, 10.85, 11.8, 12.2, 12.45],
    predict: (hidden, profile) => Math.min(...restVoltsOf(hidden, profile)),
    spread: 0.07,
    shown: OF_BATTERY,
    reason: 'surface charge, the meter and temperature leave some hundredths',
  },
  'string-balance': {
    when: 'still',
    shownBy: 'rest',
    minutes: 0.8,
    needs: 'meter',
    fits: ({ systemVolts }) => systemVolts === 24,
    outcomes: ['alike', 'apart'],
    edges: [0.2],
    predict: (hidden, profile) => {
      const [low = 0, high = 0] = restVoltsOf(hidden, profile);
      return Math.abs(high - low);
    },
    spread: 0.05,
    shown: { min: 0, max: 18, unit: 'V' },
    reason: 'two readings, each as good as a rest reading',
  },
  'key-on': {
    when: 'still',
    takesAmps: true,
    minutes: 0.6,
    needs: 'meter',
    outcomes: ['holds', 'sags', 'sags-far', 'collapses'],
    edges: [0.3, 0.8, 3],
    predict: keyOnDrop,
    spread: 0.06,
    shown: OF_STRING,
    foundFrom: ([volts], { restVolts }) => (restVolts === null ? null : rounded(restVolts - volts!)),
    isOfItself: true,
    reason: 'lamps differ from one vehicle to the next',
  },
  crank: {
    when: 'still',
    takesAmps: true,
    minutes: 1,
    needs: 'meter',
    fits: cranks,
    outcomes: ['collapses', 'under', 'near', 'holds', 'nothing-drawn'],
    // Against the least a sound battery may fall to at this temperature, per 12 V.
    edges: [-1.6, 0, 0.9, 2.4],
    predict: (hidden, profile) => {
      const volts = hidden.crank?.postVolts ?? restVoltsOf(hidden, profile).reduce((a, b) => a + b, 0);
      return againstCrankLimit(volts, profile.tempC, profile.systemVolts);
    },
    spread: 0.25,
    shown: OF_STRING,
    foundFrom: ([volts], { tempC, systemVolts }) => rounded(againstCrankLimit(volts!, tempC, systemVolts)),
    isOfItself: true,
    reason: 'drag and clamps are known to a few in a hundred',
  },
  recovery: {
    when: 'still',
    takesAmps: true,
    minutes: 0.5,
    needs: 'meter',
    fits: cranks,
    outcomes: ['stays-down', 'slow', 'climbs-back'],
    edges: [11.4, 12.2],
    predict: (hidden, profile) => {
      const rest = Math.min(...restVoltsOf(hidden, profile));
      return rest - (hidden.crank ? SLOW_RECOVERY_VOLTS * (wornOf(hidden.batteries) - 1) : 0);
    },
    spread: 0.12,
    shown: OF_STRING,
    foundFrom: ([volts], context: MeasureContext) => perTwelve(volts!, context),
    isOfItself: true,
    reason:
      'ten seconds after a try a sound battery is back near its rest volts; worn plates even out slowly',
  },
  'joint-plus': { ...JOINT, predict: (hidden, profile) => jointAmps(hidden, profile) * hidden.plusOhms },
  'joint-minus': { ...JOINT, predict: (hidden, profile) => jointAmps(hidden, profile) * hidden.minusOhms },
  'starter-stud': {
    when: 'still',
    takesAmps: true,
    minutes: 3,
    needs: 'meter',
    fits: cranks,
    outcomes: ['full', 'low', 'bad', 'no-volts'],
    edges: [0.5, 1.2, 6],
    predict: (hidden, profile) => {
      const lost = hidden.plusOhms + hidden.minusOhms + hidden.cableOhms;
      if (hidden.crank) return hidden.crank.starterAmps * lost;
      // A dead starter takes nothing, so its stud stands at the posts' volts; where nothing is sent there, all of them are missing.
      return hidden.open || hidden.held === 'starter' ? profile.systemVolts : 0;
    },
    spread: 0.1,
    shown: LOST,
    reason: 'reached with a long probe, read while it cranks',
  },
  drain: {
    when: 'still',
    minutes: 8,
    needs: 'clamp-meter',
    outcomes: ['asleep', 'high', 'much'],
    edges: [0.05, 0.1],
    predict: ({ drainAmps, leftOn }) => (leftOn ? 0.02 : drainAmps),
    spread: 0.008,
    shown: MEASURE_RANGES.milliamps,
    foundFrom: ([milliamps]) => milliamps! / 1000,
    reason: 'units must fall asleep first; the consumer left on is off by now',
  },
} as const satisfies CheckRows;
