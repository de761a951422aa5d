import { ATTEMPT_OUTCOMES } from '../../crank/index.js';
import type { DiagnosisProfile } from '../causes.js';
import { type CrankLook, HELP, type HiddenMachine, lookOf } from '../hidden.js';
import { type CheckRows, cranks, wakes } from './check.js';

/**
 * How a try ends to the ears beside it, by its circuit: chances of `ATTEMPT_OUTCOMES`. A machine that should fire does not always: flooded,
 * waxed, the key let go.
 */
export const TRY_ROWS: Record<CrankLook, readonly number[]> = {
  starts: [0.95, 0.01, 0.02, 0.01, 0.01],
  'brisk-no-fire': [0.01, 0.96, 0.01, 0.01, 0.01],
  slow: [0.06, 0.01, 0.88, 0.04, 0.01],
  'rapid-click': [0.01, 0.01, 0.08, 0.87, 0.03],
  'one-click': [0.01, 0.01, 0.03, 0.92, 0.03],
  silence: [0.01, 0.01, 0.01, 0.03, 0.94],
};

function helpChances(hidden: HiddenMachine, profile: DiagnosisProfile): readonly number[] {
  if (wakes(profile)) {
    if (hidden.open) return [0.02, 0.01, 0.01, 0.02, 0.94];
    if (hidden.cause === 'traction-flat' || hidden.cause === 'charge-point')
      return [0.03, 0.01, 0.01, 0.9, 0.05];
    if (hidden.plusOhms + hidden.minusOhms > 0.01) return [0.3, 0.01, 0.01, 0.58, 0.1];
    return [0.93, 0.01, 0.01, 0.03, 0.02];
  }
  return TRY_ROWS[lookOf(hidden, profile, true)];
}

/** Tries of the starter. */
export const OF_TRIES = {
  'try-alone': {
    when: 'still',
    takesAmps: true,
    minutes: 1,
    needs: null,
    fits: cranks,
    outcomes: ATTEMPT_OUTCOMES,
    chances: (hidden, profile) => TRY_ROWS[lookOf(hidden, profile, false)],
    holdsWhen: 'started',
    reason: 'seen and heard by the technician, not told; one in twenty is misread',
  },
  'with-help': {
    when: 'still',
    takesAmps: true,
    minutes: 4,
    needs: 'source',
    outcomes: ATTEMPT_OUTCOMES,
    chances: helpChances,
    reason: 'solved on the circuit with a good source at the posts; one in twenty is misread',
  },
  promise: {
    when: 'still',
    takesAmps: true,
    minutes: 4.2,
    needs: 'source',
    fits: cranks,
    outcomes: ['lower', 'as-promised', 'higher'],
    // Lowest volts with help against the plan's, per 12 V. The lowest of a try holds the dip of the contact too.
    edges: [-1.2, 0.8],
    predict: (hidden, profile) => {
      if (!hidden.promised) return 0;
      // Nothing draws, so the posts stay at the volts of the source.
      const volts = hidden.helped?.postVolts ?? HELP.openVolts * (profile.systemVolts / 12);
      return ((volts - hidden.promised.postVolts) * 12) / profile.systemVolts;
    },
    spread: 0.4,
    reason: 'age, drag and the contact of the clamps, which a plan cannot know',
  },
} as const satisfies CheckRows;
