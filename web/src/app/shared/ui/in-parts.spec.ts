import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { whenDrawn } from '../model/idle';
import { inParts } from './in-parts';

describe('inParts', () => {
  function begun(first: readonly number[]) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const list = signal(first);
    const shown = TestBed.runInInjectionContext(() => inParts(list, 3));
    const frame = async (): Promise<readonly number[]> => {
      TestBed.tick();
      await whenDrawn();
      // Callers that waited for the same frame have gone on by then.
      await new Promise((resolve) => setTimeout(resolve));
      TestBed.tick();
      return shown();
    };
    return { list, shown, frame };
  }

  it('shows a list part by part, in its order, to its end', async () => {
    const { shown, frame } = begun([1, 2, 3, 4, 5, 6, 7]);
    expect(shown()).toEqual([1, 2, 3]);
    expect(await frame()).toEqual([1, 2, 3, 4, 5, 6]);
    expect(await frame()).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(await frame()).toEqual([1, 2, 3, 4, 5, 6, 7]);
  });

  it('takes nothing from the screen when the list changes, and goes on with what is new', async () => {
    const { list, shown, frame } = begun([1, 2, 3, 4]);
    await frame();
    list.set([9, 8, 7, 6, 5, 4, 3]);
    expect(shown()).toEqual([9, 8, 7, 6, 5, 4]);
    expect(await frame()).toEqual([9, 8, 7, 6, 5, 4, 3]);
    list.set([]);
    expect(await frame()).toEqual([]);
  });
});
