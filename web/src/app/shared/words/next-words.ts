import type { GoReason, Stage } from '@voltrek/core/job';
import { STAGE_WORDS } from './stage-words';

/** Words of the action bar for an action that opens another stage; a stage that has words of its own says those. */
export function goWords(to: Stage, why: GoReason): string {
  switch (why) {
    case 'done':
      return to === 'verdict' ? 'Go on to the verdict' : `Go on to ${STAGE_WORDS[to]}`;
    case 'stopped':
      return 'Stopped. Go to the verdict';
    case 'runs':
      return to === 'verdict' ? 'It runs. Go on to the verdict' : 'It runs. Go on to Clear down';
    case 'on-charge':
      return 'It is on charge. See how it goes';
    case 'polarity-unproved':
      return 'Prove positive in Locate first';
    case 'no-source':
      return 'Choose a source in Plan';
    case 'comes-off-first':
      return 'Clamps are on. Clear down first';
    case 'charge-unread':
      return 'Charged. Read the rest volts again';
    case 'clamps-unfinished':
      return 'Clamps are not all on. Back to Hook up';
    case 'tries-spent':
      return 'Tries are spent. Back to Checks';
    case 'try-runs':
      return 'A try runs. Back to Crank';
    case 'next-source':
      return 'Everything is off. Back to Plan: join the next';
    case 'charging-unread':
      return 'Read charging volts';
    case 'closed':
      return 'Job is closed. See the verdict';
  }
}
