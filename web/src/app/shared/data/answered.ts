import type { Action } from '@ngrx/store';
import { catchError, map, type Observable, of } from 'rxjs';
import { problemText } from './problem';

/** A request as the action it ends in: what was loaded, or the problem in words. */
export function answered<T>(
  request: Observable<T>,
  loaded: (value: T) => Action,
  failed: (props: { problem: string }) => Action,
): Observable<Action> {
  return request.pipe(
    map(loaded),
    catchError((error: unknown) => of(failed({ problem: problemText(error) }))),
  );
}
