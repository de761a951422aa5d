import { TestBed } from '@angular/core/testing';
import { Frames } from './frames';

describe('Frames', () => {
  const task = () => new Promise<void>((resolve) => setTimeout(resolve));
  function drawing() {
    let end: () => void = () => undefined;
    return { drawn: new Promise<void>((resolve) => (end = resolve)), end: () => end() };
  }
  function begun() {
    const frames = TestBed.inject(Frames);
    let isQuiet = false;
    const quiet = frames.after('quiet').then(() => (isQuiet = true));
    return { frames, quiet, isQuiet: () => isQuiet };
  }

  it('are quiet when each part is drawn, and each that the one before brought', async () => {
    const { frames, quiet, isQuiet } = begun();
    const [first, last] = [drawing(), drawing()];
    frames.during(first.drawn.then(() => frames.during(last.drawn)));
    await frames.after('idle');
    for (const part of [first, last]) {
      await task();
      expect(isQuiet()).toBeFalse();
      part.end();
    }
    await quiet;
  });

  it('are waited for no longer than a second when a drawing never ends', async () => {
    const { frames, quiet } = begun();
    frames.during(new Promise(() => undefined));
    const from = performance.now();
    await quiet;
    expect(performance.now() - from).toBeGreaterThan(900);
  });

  it('give each slow drawing a turn of its own', async () => {
    const frames = TestBed.inject(Frames);
    const order: string[] = [];
    const first = frames.after('turn', () => order.push('first'));
    const second = frames.after('turn', () => order.push('second'));
    requestAnimationFrame(() => requestAnimationFrame(() => order.push('frame')));
    await Promise.all([first, second]);
    expect(order).toEqual(['first', 'frame', 'second']);
  });
});
