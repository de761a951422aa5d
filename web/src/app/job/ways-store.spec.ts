import { TestBed } from '@angular/core/testing';
import type { Way } from '@voltrek/core/plan';
import { Frames, type Moment } from '../shared/model/frames';
import { PlanRunner } from '../workers/plan-runner';
import type { WaysFound } from '../workers/plan.worker';
import { type WaysQuestion, WaysStore } from './ways-store';

describe('WaysStore', () => {
  const way = (id: string): Way => ({ id, points: [] }) as unknown as Way;
  const task = () => new Promise<void>((resolve) => setTimeout(resolve));

  /** A search whose worker tells what the test says, on a page that is drawn when the test says so. */
  function begun() {
    const drawn: (() => void)[] = [];
    const passes: number[] = [];
    let tell: (way: Way, share: number) => void | Promise<void> = () => undefined;
    let answer: (found: WaysFound) => void = () => undefined;
    const worker = {
      ways: (_input: unknown, _findings: unknown, samples: number, onWay: typeof tell) => {
        passes.push(samples);
        tell = onWay;
        return new Promise<WaysFound>((resolve) => (answer = resolve));
      },
    };
    let isCurrent = true;
    const byHand = {
      after: (moment: Moment, change?: () => void) => {
        change?.();
        return moment === 'quiet' ? new Promise<void>((r) => drawn.push(r)) : Promise.resolve();
      },
    };
    TestBed.configureTestingModule({
      providers: [
        WaysStore,
        { provide: Frames, useValue: byHand },
        {
          provide: PlanRunner,
          useValue: {
            begin: () => ({
              isCurrent: () => isCurrent,
              ask: (what: (w: typeof worker, subscribe: <T>(l: T) => T) => unknown) => what(worker, (l) => l),
            }),
            stop: () => undefined,
          },
        },
      ],
    });
    const store = TestBed.inject(WaysStore);
    const asked = store.ask({} as WaysQuestion);
    return {
      store,
      asked,
      passes,
      tell: (w: Way, share: number) => tell(w, share),
      answer: (ways: readonly Way[]) => answer({ ways, noSource: { share: 0.1, causes: [] } }),
      draw: async () => {
        drawn.shift()!();
        await task();
      },
      leave: () => (isCurrent = false),
    };
  }
  const settled = async (promise: void | Promise<void>): Promise<boolean> => {
    let is = false;
    void Promise.resolve(promise).then(() => (is = true));
    await task();
    return is;
  };

  it('searches once the page is drawn, and each time goes on when what it told is drawn', async () => {
    const search = begun();
    await task();
    expect(search.passes).toEqual([]);
    await search.draw();
    expect(search.passes.length).toBe(1);
    const told = search.tell(way('a'), 0.5);
    expect(search.store.ways().map(({ id }) => id)).toEqual(['a']);
    expect(await settled(told)).toBeFalse();
    await search.draw();
    expect(await settled(told)).toBeTrue();
    // Nothing is drawn so soon after: nothing is waited for.
    expect(await settled(search.tell(way('b'), 1))).toBeTrue();
    expect(search.store.ways().map(({ id }) => id)).toEqual(['a']);
  });

  it('draws finer once what it found first is drawn, and not for a page that was left', async () => {
    const search = begun();
    await search.draw();
    search.answer([way('a'), way('b')]);
    await task();
    expect(search.store.settled().map(({ id }) => id)).toEqual(['a', 'b']);
    expect(search.passes.length).toBe(1);
    await search.draw();
    expect(search.passes.length).toBe(2);
    expect(search.passes[1]).toBeGreaterThan(search.passes[0]!);
    search.answer([way('b')]);
    await task();
    await search.draw();
    await search.asked;
    expect(search.store.settled().map(({ id }) => id)).toEqual(['b']);
    expect(search.store.progress()).toBeNull();

    TestBed.resetTestingModule();
    const left = begun();
    await left.draw();
    left.answer([way('a')]);
    await task();
    left.leave();
    await left.draw();
    await left.asked;
    expect(left.passes.length).toBe(1);
  });
});
