import { computed, linkedSignal, type Signal, untracked } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { catchError, concatMap, EMPTY, type Observable, Subject, switchMap, tap, timer } from 'rxjs';
import { problemText } from './problem';

/** A page's own copy of something that the server holds. */
export interface Loaded<T> {
  /** The last answer. It stays while a newer one is on its way. */
  readonly value: Signal<T>;
  /** The server answered at least once. */
  readonly isReady: Signal<boolean>;
  /** The words of the last failure; null since the last answer. */
  readonly problem: Signal<string | null>;
  reload(): void;
  /**
   * Sends a change whose answer is the new value, one change after another, also when the page is left. An answer that was asked before it
   * is dropped. So is its own answer once the page asks another question.
   */
  change(request: Observable<T>): void;
  /** Shows the words of a failure beside it, until the next answer; null takes them away. */
  tell(problem: string | null): void;
}

/**
 * Loads what a page shows and loads it again when its question changes. Call where a component is made.
 *
 * @param question reads signals; undefined asks nothing
 * @param none the value until the first answer
 * @param pauseMs waits for a pause in typing before it asks, ms
 * @example
 * protected readonly record = loaded(() => this.vehicleId(), (id) => this.api.vehicle(id), null);
 */
export function loaded<Q, T>(
  question: () => Q | undefined,
  ask: (question: Q) => Observable<T>,
  none: NoInfer<T>,
  pauseMs = 0,
): Loaded<T> {
  const asked = computed(question);
  const resource = rxResource<T | undefined, Q | undefined>({
    params: asked,
    stream: ({ params }) =>
      pauseMs > 0 ? timer(pauseMs).pipe(switchMap(() => ask(params as Q))) : ask(params as Q),
  });
  const answer = computed(() => (resource.hasValue() ? resource.value() : undefined));
  const failure = linkedSignal<unknown, string | null>({ source: answer, computation: () => null });
  const value = linkedSignal<T | undefined, T>({
    source: answer,
    computation: (now, before) => now ?? before?.value ?? none,
  });
  const changes = new Subject<Observable<T>>();
  changes
    .pipe(
      concatMap((request) =>
        request.pipe(
          catchError((error: unknown) => {
            failure.set(problemText(error));
            return EMPTY;
          }),
        ),
      ),
    )
    .subscribe();
  return {
    value: value.asReadonly(),
    isReady: computed(() => value() !== none),
    problem: computed(() => {
      const error = resource.error();
      return failure() ?? (error ? problemText(error) : null);
    }),
    reload: () => {
      failure.set(null);
      resource.reload();
    },
    change: (request) => {
      const of = untracked(asked);
      const take = (now: T): void => {
        if (untracked(asked) === of) resource.set(now);
      };
      changes.next(request.pipe(tap(take)));
    },
    tell: (problem) => failure.set(problem),
  };
}
