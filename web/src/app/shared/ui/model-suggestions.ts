import { modelNameOf } from '@words/model-name';
import type { MachineSummary } from '@voltrek/contracts';
import { catchError, debounceTime, map, type Observable, of, type OperatorFunction, switchMap } from 'rxjs';
import type { Finder } from '../data/finder';
import { CLASS_WORDS } from '@words/words';

const SUGGESTIONS = 8;
const PAUSE_MS = 80;

/** Models by what is being typed, for a typeahead. @param onProblem called when the server does not answer */
export function modelSuggestions(
  finder: Finder,
  onProblem: (error: unknown) => void = () => undefined,
): OperatorFunction<string, readonly MachineSummary[]> {
  return (text: Observable<string>) =>
    text.pipe(
      debounceTime(PAUSE_MS),
      switchMap((typed) =>
        finder.machines(typed).pipe(
          map(({ machines }) => machines.slice(0, SUGGESTIONS)),
          catchError((error: unknown) => {
            onProblem(error);
            return of([]);
          }),
        ),
      ),
    );
}

export const modelRow = (machine: MachineSummary): string =>
  `${modelNameOf(machine)}, ${CLASS_WORDS[machine.machineClass]}`;
