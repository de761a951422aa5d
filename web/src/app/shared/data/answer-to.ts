import { HttpErrorResponse } from '@angular/common/http';
import { TimeoutError } from 'rxjs';
import { isDoorShut, problemText } from '../state/problem';
import type { Answer } from './queues';
import { ANSWER_TO as T } from '@words/screens/sync';

/** Nobody answered, only something on the way to the server did, or it asks for patience. */
const AWAY_STATUSES: readonly number[] = [0, 429, 502, 503, 504];

/** The outcome of an attempt to send. */
export function answerTo(error: unknown): Answer {
  if (error instanceof TimeoutError) return { kind: 'away' };
  if (!(error instanceof HttpErrorResponse)) return { kind: 'choked', why: T.itCouldNotBeSent };
  if (isDoorShut(error)) return { kind: 'unsigned' };
  if (AWAY_STATUSES.includes(error.status)) return { kind: 'away' };
  const why = problemText(error);
  return error.status >= 500 ? { kind: 'choked', why } : { kind: 'refused', why };
}

/** The server was not reached, or wants somebody to sign in first: what was to be sent may be kept and sent later. */
export const isAway = (error: unknown): boolean => ['away', 'unsigned'].includes(answerTo(error).kind);
