import { HttpErrorResponse } from '@angular/common/http';
import { ApplicationRef, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { type Loaded, loaded } from './loaded';

describe('what a page loads', () => {
  const asked: { readonly of: string; readonly answer: Subject<string> }[] = [];
  const question = signal<string | undefined>('a');
  let page: Loaded<string>;
  const settle = (): Promise<unknown> => TestBed.inject(ApplicationRef).whenStable();
  /** Answers do not complete the page's wait by themselves: the microtasks of the resource run first. */
  const tick = async (): Promise<void> => {
    TestBed.tick();
    await new Promise((done) => setTimeout(done));
    TestBed.tick();
  };
  const answer = async (at: number, text: string): Promise<void> => {
    asked[at]!.answer.next(text);
    asked[at]!.answer.complete();
    await tick();
  };

  beforeEach(async () => {
    asked.length = 0;
    question.set('a');
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    page = TestBed.runInInjectionContext(() =>
      loaded(
        () => question(),
        (of: string) => {
          const sent = { of, answer: new Subject<string>() };
          asked.push(sent);
          return sent.answer;
        },
        'none',
      ),
    );
    await tick();
  });

  it('is nothing at first, then the answer, which stays while the next is asked', async () => {
    expect([page.value(), page.isReady()]).toEqual(['none', false]);
    await answer(0, 'first');
    expect([page.value(), page.isReady()]).toEqual(['first', true]);
    question.set('b');
    await tick();
    expect([asked.at(-1)!.of, page.value()]).toEqual(['b', 'first']);
    await answer(1, 'second');
    expect(page.value()).toBe('second');
    await settle();
  });

  it('shows no answer to a question that was replaced', async () => {
    question.set('b');
    await tick();
    expect(asked[0]!.answer.observed).toBeFalse();
    await answer(1, 'second');
    expect(page.value()).toBe('second');
  });

  it('takes the answer of a change, and drops one that was asked before it', async () => {
    const change = new Subject<string>();
    page.change(change);
    change.next('changed');
    change.complete();
    await tick();
    expect(asked[0]!.answer.observed).toBeFalse();
    expect(page.value()).toBe('changed');
  });

  it('drops the answer of a change once the page asks of something else', async () => {
    await answer(0, 'of a');
    const change = new Subject<string>();
    page.change(change);
    question.set('b');
    await tick();
    await answer(1, 'of b');
    change.next('a changed');
    change.complete();
    await tick();
    expect(page.value()).toBe('of b');
  });

  it('says why it failed until the next answer, and sends the next change', async () => {
    await answer(0, 'first');
    const [bad, good] = [new Subject<string>(), new Subject<string>()];
    page.change(bad);
    page.change(good);
    bad.error(new HttpErrorResponse({ status: 0 }));
    await tick();
    expect([page.problem(), page.value()]).toEqual(['The server does not answer.', 'first']);
    good.next('second');
    good.complete();
    await tick();
    expect([page.problem(), page.value()]).toEqual([null, 'second']);
  });

  it('forgets why a change failed once another question is answered', async () => {
    await answer(0, 'of a');
    const bad = new Subject<string>();
    page.change(bad);
    bad.error(new HttpErrorResponse({ status: 0 }));
    await tick();
    expect(page.problem()).not.toBeNull();
    question.set('b');
    await tick();
    await answer(1, 'of b');
    expect([page.problem(), page.value()]).toEqual([null, 'of b']);
  });

  it('keeps the last answer where a question fails', async () => {
    await answer(0, 'first');
    expect(page.value()).toBe('first');
    page.reload();
    await tick();
    asked[1]!.answer.error(new HttpErrorResponse({ status: 503 }));
    await tick();
    expect(page.value()).toBe('first');
    expect(page.problem()).toBe('The server does not answer.');
  });
});
