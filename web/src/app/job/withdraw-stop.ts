import type { StopCondition } from '@voltrek/core/diagnosis';
import { STOP_SCREEN as T } from '@words/screens/job-stages';
import { STOP_WORDS } from '@words/words';
import type { ReasonPrompt } from '../shared/ui/reason-prompt';
import type { Reporter } from '../shared/job/reporter';

/** Takes a stop back once a reason is given; nothing happens without one. */
export async function withdrawStop(
  reasons: ReasonPrompt,
  reporter: Reporter,
  stop: StopCondition,
): Promise<void> {
  const reason = await reasons.ask(T.whyWithdraw({ stop: STOP_WORDS[stop].sign }));
  if (reason) reporter.report('stop.withdrawn', { stop, reason });
}
