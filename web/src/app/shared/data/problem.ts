import { HttpErrorResponse } from '@angular/common/http';
import type { Problem } from '@voltrek/contracts';
import { TimeoutError } from 'rxjs';
import { answerText } from '@words/answer-words';
import { faultText } from '@words/fault-words';
import { PROBLEM as T } from '@words/screens/state';

/** A change that no server took and that could not be kept on this device either: it stands only where it was typed. */
export class NotKept extends Error {}

/** Words for a failed request: by its code, else the server's own, or that there was no server. */
export function problemText(error: unknown): string {
  const problem = problemOf(error);
  if (problem?.fields?.length) return problem.fields.map((fault) => faultText(fault)).join('. ');
  const known = problem && answerText(problem);
  if (known) return known;
  if (problem?.detail) return problem.detail;
  if (error instanceof NotKept) return T.itIsNotSaved;
  if (isTransient(error)) return T.offline;
  return T.unknown;
}

/** True when trying the same again may work: no answer, or the server is not ready. */
export function isTransient(error: unknown): boolean {
  if (error instanceof TimeoutError) return true;
  return error instanceof HttpErrorResponse && (error.status === 0 || error.status >= 500);
}

/** True when the server wants a sign-in first. The bar of sign-in tells it for all screens. */
export function isSignInRequired(error: unknown): boolean {
  return error instanceof HttpErrorResponse && error.status === 401;
}

function problemOf(error: unknown): Problem | null {
  if (!(error instanceof HttpErrorResponse)) return null;
  const body: unknown = typeof error.error === 'string' ? parse(error.error) : error.error;
  return body !== null && typeof body === 'object' && 'status' in body ? (body as Problem) : null;
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
