import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { Subject } from 'rxjs';
import { Api } from './api';
import { serverCopy } from './server-copy';

type Names = readonly string[];

describe('a copy of what the server holds', () => {
  const asks: Subject<Names>[] = [];
  const sends: Subject<Names>[] = [];
  const next = (list: Subject<Names>[]): Subject<Names> => {
    const answer = new Subject<Names>();
    list.push(answer);
    return answer;
  };
  const names = serverCopy<Names, string>('names', [], { ask: () => next(asks), send: () => next(sends) });
  let store: Store;

  beforeEach(() => {
    asks.length = 0;
    sends.length = 0;
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(names),
        provideEffects(names.effects),
        { provide: Api, useValue: {} },
      ],
    });
    store = TestBed.inject(Store) as Store;
  });
  const answer = (from: Subject<Names>[], at: number, copy: Names): void => {
    from[at]!.next(copy);
    from[at]!.complete();
  };
  const copy = (): Names => store.selectSignal(names.selectCopy)();
  const status = (): string => store.selectSignal(names.selectStatus)();

  it('loads, and stays ready while it loads again', () => {
    expect(status()).toBe('idle');
    store.dispatch(names.requested());
    expect(status()).toBe('loading');
    answer(asks, 0, ['a']);
    store.dispatch(names.requested());
    expect([copy(), status()]).toEqual([['a'], 'ready']);
    answer(asks, 1, ['b']);
    expect(copy()).toEqual(['b']);
  });

  it('drops an answer that was asked before a change was sent', () => {
    store.dispatch(names.requested());
    store.dispatch(names.changeSent('b'));
    answer(asks, 0, ['a']);
    expect(copy()).toEqual([]);
    answer(sends, 0, ['a', 'b']);
    expect(copy()).toEqual(['a', 'b']);
  });

  it('drops an answer that was asked while a change was under way and comes after it', () => {
    store.dispatch(names.changeSent('b'));
    store.dispatch(names.requested());
    answer(sends, 0, ['a', 'b']);
    answer(asks, 0, ['a']);
    expect(copy()).toEqual(['a', 'b']);
  });

  it('sends one change after the other', () => {
    store.dispatch(names.changeSent('b'));
    store.dispatch(names.changeSent('c'));
    expect(sends.length).toBe(1);
    answer(sends, 0, ['b']);
    answer(sends, 1, ['b', 'c']);
    expect(copy()).toEqual(['b', 'c']);
  });

  it('keeps the copy when a change fails, says why, and sends the next', () => {
    store.dispatch(names.requested());
    answer(asks, 0, ['a']);
    store.dispatch(names.changeSent('b'));
    store.dispatch(names.changeSent('c'));
    sends[0]!.error(new Error('no'));
    expect([copy(), status()]).toEqual([['a'], 'failed']);
    expect(store.selectSignal(names.selectProblem)()).toBe('Something went wrong.');
    answer(sends, 1, ['a', 'c']);
    expect([copy(), store.selectSignal(names.selectProblem)()]).toEqual([['a', 'c'], null]);
  });

  it('is the answer of the last question where two are under way', () => {
    store.dispatch(names.requested());
    store.dispatch(names.requested());
    expect(asks[0]!.observed).toBeFalse();
    answer(asks, 1, ['b']);
    expect(copy()).toEqual(['b']);
  });
});
