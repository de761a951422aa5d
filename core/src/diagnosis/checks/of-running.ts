import { USUAL_CONVERTER } from '../../crank/index.js';
import { CHARGES_FROM_VOLTS } from '../reading.js';
import type { DiagnosisProfile } from '../causes.js';
import { type HiddenMachine, lookOf, restVoltsOf } from '../hidden.js';
import { type CheckRows, type MeasureContext, cranks, wakes, perTwelve, OF_STRING } from './check.js';

/** A figure of the alternator at the posts, per 12 V. */
const CHARGING = {
  when: 'running',
  needs: 'source',
  fits: cranks,
  outcomes: ['none', 'low', 'in-band', 'over'],
  edges: [CHARGES_FROM_VOLTS, 13.6, 15.1],
  spread: 0.1,
  shown: OF_STRING,
  foundFrom: ([volts]: readonly number[], context: MeasureContext) => perTwelve(volts!, context),
  holdsWhen: 'in-band',
} as const;

/** Running, it shows what charges it; what does not run, with help or without, shows its battery's own volts. */
function runningVolts(hidden: HiddenMachine, profile: DiagnosisProfile, volts: number): number {
  return lookOf(hidden, profile, true) === 'starts' ? volts : Math.min(12.9, ...restVoltsOf(hidden, profile));
}

/** Figures while the engine runs or the converter works. */
export const OF_RUNNING = {
  charging: {
    ...CHARGING,
    minutes: 4,
    predict: (hidden, profile) => runningVolts(hidden, profile, hidden.chargingVolts),
    reason: 'idle speed, a flat battery that holds it down, and a regulator with a mind of its own',
  },
  'charging-loaded': {
    ...CHARGING,
    minutes: 6,
    predict: (hidden, profile) => runningVolts(hidden, profile, hidden.revvedVolts),
    reason: 'five minutes on and at 2,000 rpm only an alternator that is weak stays low',
  },
  ripple: {
    when: 'running',
    minutes: 4.5,
    needs: 'source',
    fits: cranks,
    outcomes: ['smooth', 'some', 'ripples'],
    edges: [0.15, 0.3],
    predict: (hidden, profile) => (lookOf(hidden, profile, true) === 'starts' ? hidden.rippleVolts : 0),
    spread: 0.04,
    shown: { min: 0, max: 16, unit: 'V' },
    reason: 'alternating volts at the posts: a diode gone lets a third of each wave through',
  },
  converter: {
    when: 'running',
    minutes: 3,
    needs: 'source',
    fits: wakes,
    outcomes: ['no-rise', 'rises'],
    edges: [13],
    predict: ({ cause, open }) =>
      cause === 'converter' || cause === 'traction-flat' || cause === 'charge-point' || open
        ? 12.3
        : USUAL_CONVERTER.volts,
    spread: 0.25,
    shown: { min: 0, max: 20, unit: 'V' },
    reason: 'when the converter takes over the volts jump',
  },
} as const satisfies CheckRows;
