import { TestBed } from '@angular/core/testing';
import { Drawings, whenIdle } from './idle';

describe('Drawings', () => {
  const task = () => new Promise<void>((resolve) => setTimeout(resolve));
  function drawing() {
    let end: () => void = () => undefined;
    return { drawn: new Promise<void>((resolve) => (end = resolve)), end: () => end() };
  }
  function begun() {
    const drawings = TestBed.inject(Drawings);
    let isDone = false;
    const done = drawings.done().then(() => (isDone = true));
    return { drawings, done, isDone: () => isDone };
  }

  it('are done when each part is that the one before brought', async () => {
    const { drawings, done, isDone } = begun();
    const [first, last] = [drawing(), drawing()];
    drawings.add(first.drawn.then(() => drawings.add(last.drawn)));
    await whenIdle();
    for (const part of [first, last]) {
      await task();
      expect(isDone()).toBeFalse();
      part.end();
    }
    await done;
  });

  it('are waited for no longer than a second when one never ends', async () => {
    const { drawings, done } = begun();
    drawings.add(new Promise(() => undefined));
    const from = performance.now();
    await done;
    expect(performance.now() - from).toBeGreaterThan(900);
  });
});
