import { WORN_FROM } from '../draw-hidden.js';
import { CHARGES_FROM_VOLTS } from '../reading.js';
import type { Cause, DiagnosisProfile } from '../causes.js';
import { SYMPTOMS } from '../vocabulary.js';
import { crankOf, type HiddenMachine, type LampsAtKey, lampsAtKey, lookOf, restVoltsOf } from '../hidden.js';
import { type CheckRows, yes, cranks, wakes, wornOf } from './check.js';

/** The driver's words for it: mostly what it truly did, sometimes its neighbour. */
function symptomChances(hidden: HiddenMachine, profile: DiagnosisProfile): readonly number[] {
  if (wakes(profile)) return wakingSymptoms(hidden, profile);
  const look = lookOf(hidden, profile, false);
  const isRecurrent = hidden.holds.includes('charging') || hidden.holds.includes('drain');
  //                              silence click rapid slow  brisk dies  lamps doors
  const row: Record<typeof look, readonly number[]> = {
    silence: [0.86, 0.05, 0.03, 0.01, 0.01, 0.02, 0.01, 0.01],
    'one-click': [0.08, 0.76, 0.1, 0.02, 0.01, 0.01, 0.01, 0.01],
    'rapid-click': [0.06, 0.12, 0.72, 0.05, 0.01, 0.01, 0.02, 0.01],
    slow: [0.01, 0.03, 0.08, 0.82, 0.02, 0.02, 0.01, 0.01],
    'brisk-no-fire': [0.01, 0.01, 0.01, 0.02, 0.92, 0.01, 0.01, 0.01],
    starts: [0.05, 0.05, 0.05, 0.2, 0.1, 0.45, 0.09, 0.01],
  };
  // A fault that empties the battery again and again is also reported as such.
  const bySilence = isRecurrent
    ? row[look].map((share, i) => share * 0.75 + (i === 5 ? 0.2 : i === 6 ? 0.05 : 0))
    : row[look];
  return silenceChances(bySilence, lampsAtKey(hidden, profile) !== 'go-out');
}

/** Drivers report silence with the dash dead or with its lamps bright; one in ten reports the wrong one. */
function silenceChances([silence, ...others]: readonly number[], isBright: boolean): readonly number[] {
  const bright = isBright ? 0.9 : 0.1;
  return [silence! * (1 - bright), silence! * bright, ...others];
}

function wakingSymptoms(hidden: HiddenMachine, profile: DiagnosisProfile): readonly number[] {
  const isDead = hidden.open || restVoltsOf(hidden, profile)[0]! < 11.5;
  return silenceChances(wakingRow(hidden, isDead), !isDead);
}

function wakingRow(hidden: HiddenMachine, isDead: boolean): readonly number[] {
  if (isDead) return [0.25, 0.02, 0.03, 0.01, 0.01, 0.02, 0.06, 0.6];
  switch (hidden.cause) {
    case 'traction-flat':
    case 'charge-point':
      return [0.05, 0.01, 0.01, 0.01, 0.01, 0.06, 0.8, 0.05];
    case 'converter':
      return [0.08, 0.01, 0.01, 0.01, 0.01, 0.5, 0.3, 0.08];
    case 'none':
      return [0.1, 0.05, 0.05, 0.05, 0.05, 0.3, 0.3, 0.1];
    default:
      return [0.1, 0.05, 0.1, 0.01, 0.01, 0.08, 0.45, 0.2];
  }
}

/** Reports of the lamps at the key, by their true behaviour. */
const LAMPS_ROWS: Record<LampsAtKey, readonly number[]> = {
  'go-out': [0.84, 0.13, 0.03],
  dim: [0.15, 0.7, 0.15],
  'stay-bright': [0.03, 0.14, 0.83],
};
/** Causes that make a crank slow for weeks before it fails. */
const SLOWS: readonly Cause[] = [
  'joint-positive',
  'joint-negative',
  'joint-loose',
  'cable',
  'charging',
  'sulphated',
];
/** Causes that empty a battery again once somebody has helped. */
const EMPTIES_AGAIN: readonly Cause[] = ['charging', 'drain', 'worn', 'sulphated', 'not-taught'];
/** A mild day, in which everything sound enough starts, degC. */
const WARM_C = 20;

/** Whether this machine, as it stands, would start on a mild day. */
function startsWhenWarm(hidden: HiddenMachine, profile: DiagnosisProfile): boolean {
  const mild = { ...profile, tempC: WARM_C };
  const batteries = hidden.batteries.map((state) => ({ ...state, tempC: WARM_C }));
  const warmed = { ...hidden, batteries };
  return lookOf({ ...warmed, crank: crankOf(warmed, mild, false) }, mild, false) === 'starts';
}

/** The driver’s answers. */
export const OF_DRIVER = {
  symptom: {
    minutes: 0.2,
    needs: null,
    outcomes: SYMPTOMS,
    chances: symptomChances,
    reason: 'one in five drivers tells a neighbour of what it did',
  },
  'ask-left-on': {
    minutes: 0.3,
    needs: null,
    outcomes: ['yes', 'no'],
    chances: ({ leftOn }) => yes(leftOn ? 0.9 : 0.03),
    reason: 'the switch is still on, or they remember; few own up to what is not so',
  },
  'ask-use': {
    minutes: 0.3,
    needs: null,
    outcomes: ['regular', 'short-trips', 'stood-weeks'],
    chances: ({ use }) =>
      use === 'regular' ? [0.9, 0.07, 0.03] : use === 'short-trips' ? [0.1, 0.87, 0.03] : [0.03, 0.04, 0.93],
    reason: 'people know how far they drive, roughly',
  },
  'ask-flats': {
    minutes: 0.3,
    needs: null,
    outcomes: ['yes', 'no'],
    chances: ({ earlierFlat }) => yes(earlierFlat ? 0.93 : 0.03),
    reason: 'a second flat call is remembered, and is in the log',
  },
  'ask-dims': {
    isVolunteered: true,
    minutes: 0.2,
    needs: null,
    fits: cranks,
    outcomes: ['go-out', 'dim', 'stay-bright'],
    chances: (hidden, profile) => LAMPS_ROWS[lampsAtKey(hidden, profile)],
    reason: 'seen through the windscreen or remembered; by day one in six is taken for its neighbour',
  },
  'ask-slow-lately': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    fits: cranks,
    outcomes: ['yes', 'no'],
    chances: ({ batteries, holds, starter }) =>
      yes(
        wornOf(batteries) >= WORN_FROM
          ? 0.65
          : holds.some((cause) => SLOWS.includes(cause)) || starter === 'dragging'
            ? 0.45
            : 0.1,
      ),
    reason: 'what wears or loosens gives notice for weeks; what was left on does not',
  },
  'ask-warned': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    fits: wakes,
    outcomes: ['yes', 'no'],
    chances: ({ batteries, cause }) =>
      yes(cause === 'converter' ? 0.55 : wornOf(batteries) >= WORN_FROM ? 0.6 : 0.08),
    reason:
      'its units watch their own volts: what wears shows in odd warnings for weeks, what was left on does not',
  },
  'ask-charge-lamp': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    fits: cranks,
    outcomes: ['was-lit', 'out'],
    chances: ({ holds, revvedVolts, rippleVolts }) =>
      yes(
        !holds.includes('charging')
          ? 0.03
          : revvedVolts < CHARGES_FROM_VOLTS
            ? 0.72
            : rippleVolts > 0.3
              ? 0.4
              : 0.15,
      ),
    reason: 'the lamp tells of no charging; of weak or too much it often does not, and few drivers look',
  },
  'ask-noise': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    fits: cranks,
    outcomes: ['squeal', 'grind', 'none'],
    chances: ({ beltBad, starter }) => {
      if (beltBad) return [0.5, 0.03, 0.47];
      return starter === 'dragging' ? [0.03, 0.35, 0.62] : [0.04, 0.02, 0.94];
    },
    reason: 'a slack belt squeals after the start, a starter that drags grinds; half do neither',
  },
  'ask-helped': {
    isVolunteered: true,
    minutes: 0.3,
    needs: null,
    outcomes: ['flat-again', 'held', 'not-helped'],
    chances: ({ earlierFlat, holds }) => {
      if (!earlierFlat) return [0.02, 0.04, 0.94];
      return holds.some((cause) => EMPTIES_AGAIN.includes(cause)) ? [0.62, 0.2, 0.18] : [0.25, 0.5, 0.25];
    },
    reason: 'who was helped before remembers whether it was flat again within days',
  },
  'ask-replaced': {
    minutes: 0.2,
    needs: null,
    outcomes: ['yes', 'no'],
    chances: ({ replaced }) => yes(replaced ? 0.93 : 0.03),
    reason: 'a new battery is remembered, and paid for',
  },
  'ask-warm': {
    minutes: 0.6,
    needs: null,
    fits: (p) => cranks(p) && p.tempC < WARM_C - 10,
    outcomes: ['cold-only', 'any-weather'],
    chances: (hidden, profile) => {
      const failsNow = lookOf(hidden, profile, false) !== 'starts';
      return yes(failsNow && startsWhenWarm(hidden, profile) ? 0.45 : 0.15);
    },
    reason:
      'what passes warm and fails cold is short of a little: worn plates, a joint, thick oil; half flat does so too, for a day',
  },
} as const satisfies CheckRows;
