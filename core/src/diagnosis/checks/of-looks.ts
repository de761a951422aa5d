import type { DiagnosisProfile } from '../causes.js';
import type { HiddenMachine } from '../hidden.js';
import { type CheckRows, yes, cranks, wakes } from './check.js';

/** Of a look that is either right or not. */
const LOOK_OUTCOMES = ['fault', 'clear'] as const;

/** A look of the walk round that is no check of its own. */
const LOOK = { minutes: 0.2, needs: null, outcomes: LOOK_OUTCOMES } as const;
/** One that is weighed as a part of another check. */
const PART = {
  ...LOOK,
  reason: 'weighed as a part of its whole',
} as const;
/** One that ends the job. */
const ENDS_JOB = {
  ...LOOK,
  reason: 'a hurt case or high-voltage part ends the job whatever else is found',
} as const;

/** Looks, and switches that are worked by hand. */
export const OF_LOOKS = {
  'look-switches': {
    minutes: 0.4,
    needs: null,
    outcomes: ['one-is-on', 'all-off'],
    chances: ({ leftOn }: HiddenMachine) => yes(leftOn ? 0.88 : 0.02),
    reason: 'lamp switch, key, door, socket: one of them is usually still on',
  },
  'look-joints': {
    minutes: 0.5,
    needs: null,
    outcomes: ['turns-by-hand', 'deposits', 'rust', 'clean'],
    chances: ({ holds }) => {
      if (holds.includes('joint-loose')) return [0.92, 0.025, 0.005, 0.05];
      if (holds.includes('joint-positive') || holds.includes('joint-negative'))
        return [0.03, 0.56, 0.08, 0.33];
      return holds.includes('cable') ? [0.015, 0.08, 0.2, 0.705] : [0.015, 0.07, 0.01, 0.905];
    },
    reason:
      'three bad joints in ten look clean; a loose one turns by hand; a body strap that is eaten shows rust at its lugs',
  },
  'look-belt': {
    minutes: 0.4,
    needs: null,
    fits: (p: DiagnosisProfile) => cranks(p) && p.machineClass !== 'motorcycle',
    outcomes: ['bad', 'sound'],
    chances: ({ beltBad }) => yes(beltBad ? 0.92 : 0.03),
    mendedBy: 'belt-tightened',
    reason: 'slack or glazed shows; a worn one hides',
  },
  'look-date': {
    minutes: 0.3,
    needs: null,
    outcomes: ['under-3', '3-to-6', 'over-6'],
    chances: ({ ageYears }) =>
      ageYears < 3 ? [0.92, 0.06, 0.02] : ageYears < 6 ? [0.05, 0.9, 0.05] : [0.02, 0.08, 0.9],
    reason: 'a date mark, when it can be read',
  },
  interlocks: {
    minutes: 0.5,
    needs: null,
    fits: cranks,
    outcomes: LOOK_OUTCOMES,
    chances: ({ cause }) => yes(cause === 'interlock' ? 0.96 : 0.01),
    mendedBy: 'switch-set',
    reason: 'moved and tried again, an interlock gives itself away',
  },
  'immobiliser-lamp': {
    takesAmps: true,
    minutes: 0.2,
    needs: null,
    fits: cranks,
    outcomes: ['lit', 'out'],
    chances: ({ cause }) => yes(cause === 'immobiliser' ? 0.95 : 0.01),
    reason: 'it has a lamp of its own',
  },
  'isolator-fuse': {
    minutes: 0.8,
    needs: null,
    outcomes: LOOK_OUTCOMES,
    chances: ({ open }) => yes(open ? 0.95 : 0.01),
    reason: 'an isolator is seen; a fuse is read through',
  },
  'fuel-gauge': {
    takesAmps: true,
    minutes: 0.3,
    needs: null,
    fits: cranks,
    outcomes: ['empty', 'has-fuel'],
    chances: ({ cause }) => yes(cause === 'fuel' ? 0.55 : 0.02),
    reason: 'half of fuel faults are an empty tank; the rest are waxed or spark',
  },
  'turn-by-hand': {
    when: 'still',
    minutes: 2.5,
    needs: null,
    fits: cranks,
    outcomes: ['tight', 'turns'],
    chances: ({ cause }) => yes(cause === 'seized' ? 0.93 : 0.02),
    reason: 'with gear out: on the crank bolt, or pushed in gear',
  },
  'traction-gauge': {
    minutes: 0.6,
    needs: null,
    fits: wakes,
    outcomes: ['flat', 'has-charge'],
    chances: ({ cause }) => yes(cause === 'traction-flat' || cause === 'charge-point' ? 0.94 : 0.02),
    reason: 'it shows once anything wakes, or the driver knows',
  },
  'charge-lamp': {
    minutes: 1,
    needs: null,
    fits: wakes,
    outcomes: ['no-lamp', 'ready'],
    chances: ({ cause }) => yes(cause === 'charge-point' ? 0.95 : 0.03),
    reason: 'a charge cord that shows no ready lamp has a socket fault',
  },
  case: { ...ENDS_JOB, stop: 'case-damaged' },
  'high-voltage-ready': { ...ENDS_JOB, stop: 'high-voltage-damaged' },
  'selector-park': { ...PART, partOf: 'interlocks', mendedBy: 'switch-set' },
  'brake-switch': { ...PART, partOf: 'interlocks' },
  'clutch-switch': { ...PART, partOf: 'interlocks' },
  'kill-switch': { ...PART, partOf: 'interlocks', mendedBy: 'switch-set' },
  'side-stand': { ...PART, partOf: 'interlocks', mendedBy: 'switch-set' },
  neutral: { ...PART, partOf: 'interlocks', mendedBy: 'switch-set' },
  'seat-switch': { ...PART, partOf: 'interlocks' },
  'blade-switch': { ...PART, partOf: 'interlocks', mendedBy: 'switch-set' },
  'key-position': { ...PART, partOf: 'interlocks', mendedBy: 'switch-set' },
  pto: { ...PART, partOf: 'interlocks', mendedBy: 'switch-set' },
  isolator: { ...PART, partOf: 'isolator-fuse', mendedBy: 'isolator-on' },
  'main-fuse': { ...PART, partOf: 'isolator-fuse', mendedBy: 'fuse-renewed' },
  'emergency-stop': { ...PART, partOf: 'isolator-fuse', mendedBy: 'stop-released' },
  'both-batteries': { ...PART, partOf: 'isolator-fuse' },
  'fuel-tap': { ...PART, partOf: 'fuel-gauge', mendedBy: 'switch-set' },
} as const satisfies CheckRows;
