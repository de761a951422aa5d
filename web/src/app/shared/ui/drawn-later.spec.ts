import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Frames } from '../model/frames';
import { inParts, later, onceDrawn } from './drawn-later';

@Component({
  selector: 'vt-drawn-host',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `{{ isBelow() ? 'below' : 'above' }}`,
})
class DrawnHost {
  readonly isBelow = onceDrawn();
}

const frame = (): Promise<void> => TestBed.inject(Frames).after('turn');

beforeEach(() => TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] }));

describe('onceDrawn', () => {
  it('comes true after the first frame, and is drawn by then', async () => {
    const { nativeElement: root } = TestBed.createComponent(DrawnHost) as { nativeElement: HTMLElement };
    TestBed.tick();
    expect(root.textContent).toBe('above');
    await frame();
    expect(root.textContent).toBe('below');
  });

  it('draws nothing on a page that was left meanwhile', async () => {
    const fixture = TestBed.createComponent(DrawnHost);
    fixture.destroy();
    await frame();
    expect(fixture.componentInstance.isBelow()).toBeFalse();
  });
});

describe('inParts', () => {
  function begun(first: readonly number[]) {
    const list = signal(first);
    const shown = TestBed.runInInjectionContext(() => inParts(list, 3));
    const next = async (): Promise<readonly number[]> => {
      TestBed.tick();
      await frame();
      TestBed.tick();
      return shown();
    };
    return { list, shown, next };
  }

  it('shows a list part by part, in its order, to its end', async () => {
    const { shown, next } = begun([1, 2, 3, 4, 5, 6, 7]);
    expect(shown()).toEqual([1, 2, 3]);
    expect(await next()).toEqual([1, 2, 3, 4, 5, 6]);
    await next();
    expect(await next()).toEqual([1, 2, 3, 4, 5, 6, 7]);
  });

  it('takes nothing from the screen when the list changes, and goes on with what is new', async () => {
    const { list, shown, next } = begun([1, 2, 3, 4]);
    await next();
    list.set([9, 8, 7, 6, 5, 4, 3]);
    expect(shown()).toEqual([9, 8, 7, 6, 5, 4]);
    await next();
    expect(await next()).toEqual([9, 8, 7, 6, 5, 4, 3]);
    list.set([]);
    expect(await next()).toEqual([]);
  });
});

describe('later', () => {
  it('gives the first value at once, a further one after its delay, and of two only the last', async () => {
    const value = signal<string | null>('a');
    const shown = TestBed.runInInjectionContext(() => later(value, 20));
    TestBed.tick();
    expect(shown()).toBe('a');
    value.set('b');
    TestBed.tick();
    value.set('c');
    TestBed.tick();
    expect(shown()).toBe('a');
    await new Promise((done) => setTimeout(done, 60));
    expect(shown()).toBe('c');
    value.set(null);
    TestBed.tick();
    expect(shown()).toBeNull();
  });
});
