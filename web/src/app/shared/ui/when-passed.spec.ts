import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { whenPassed } from './when-passed';

describe('whenPassed', () => {
  function counted(first: number | null) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const left = signal<number | null>(first);
    let told = 0;
    TestBed.runInInjectionContext(() => whenPassed(left, () => told++));
    const pass = (seconds: number | null): number => {
      left.set(seconds);
      TestBed.tick();
      return told;
    };
    TestBed.tick();
    return pass;
  }

  it('tells the end of a count once, in its moment', () => {
    const pass = counted(3);
    expect([pass(1), pass(0), pass(-1), pass(-5)]).toEqual([0, 1, 1, 1]);
    // The next count is another.
    expect([pass(60), pass(0)]).toEqual([1, 2]);
  });

  it('tells nothing of a count that was over when it was first seen, or was broken off', () => {
    const pass = counted(-4);
    expect([pass(-5), pass(10), pass(null), pass(-1)]).toEqual([0, 0, 0, 0]);
  });
});
