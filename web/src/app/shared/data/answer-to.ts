import { HttpErrorResponse } from '@angular/common/http';
import type { JobEvent } from '@voltrek/core/job';
import { TimeoutError } from 'rxjs';
import { isSignInRequired, problemText } from './problem';
import { ANSWER_TO as T } from '@words/screens/sync';

/** The fate of an event that was sent. */
export type Answer =
  | { readonly kind: 'taken'; readonly event: JobEvent; readonly revision: number }
  /** It will never be taken. */
  | { readonly kind: 'refused'; readonly why: string }
  /** The log keeps no such event any more: there is nothing to ask. */
  | { readonly kind: 'gone' }
  /** Nobody answered: the event is not to blame. */
  | { readonly kind: 'away' }
  /** Its reporter must sign in on this device first. */
  | { readonly kind: 'unsigned' }
  /** The server answered, and could not deal with it. */
  | { readonly kind: 'choked'; readonly why: string };

/** Nobody answered, only something on the way to the server did, or it asks for patience. */
const AWAY_STATUSES: readonly number[] = [0, 429, 502, 503, 504];

/** The outcome of an attempt to send. */
export function answerTo(error: unknown): Answer {
  if (error instanceof TimeoutError) return { kind: 'away' };
  if (!(error instanceof HttpErrorResponse)) return { kind: 'choked', why: T.notSent };
  if (isSignInRequired(error)) return { kind: 'unsigned' };
  if (AWAY_STATUSES.includes(error.status)) return { kind: 'away' };
  const why = problemText(error);
  return error.status >= 500 ? { kind: 'choked', why } : { kind: 'refused', why };
}

/** The server was not reached, or wants somebody to sign in first: what was to be sent may be kept and sent later. */
export const isAway = (error: unknown): boolean => ['away', 'unsigned'].includes(answerTo(error).kind);
