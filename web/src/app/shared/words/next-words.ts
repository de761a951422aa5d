import type { GoReason, Stage } from '@voltrek/core/job';
import { messagesOf } from './messages-of';
import { STAGE_WORDS } from './stage-words';

const T = messagesOf('go');

/** Words of the action bar for an action that opens another stage; a stage that has words of its own says those. */
export function goWords(to: Stage, why: GoReason): string {
  switch (why) {
    case 'done':
      return to === 'verdict' ? T.doneVerdict : T.done({ stage: STAGE_WORDS[to] });
    case 'runs':
      return to === 'verdict' ? T.runsVerdict : T.runs;
    default:
      return T[why];
  }
}
