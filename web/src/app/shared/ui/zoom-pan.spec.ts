import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { ZoomPan } from './zoom-pan';

describe('ZoomPan', () => {
  async function shown() {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(ZoomPan);
    const root = fixture.nativeElement as HTMLElement;
    root.style.cssText = 'display: flex; width: 400px; height: 300px';
    document.body.append(root);
    await fixture.whenStable();
    const room = root.querySelector<HTMLElement>('.room')!;
    const view = (): DOMMatrix => new DOMMatrix(getComputedStyle(root.querySelector('.moved')!).transform);
    const press = async (key: string): Promise<void> => {
      room.dispatchEvent(new KeyboardEvent('keydown', { key }));
      await fixture.whenStable();
    };
    return { fixture, room, view, press };
  }

  it('comes nearer and goes back by keyboard, never farther than fitting', async () => {
    const { view, press } = await shown();
    await press('+');
    await press('+');
    expect(view().a).toBeCloseTo(1.96, 6);
    await press('0');
    expect(view().isIdentity).toBeTrue();
    await press('-');
    expect(view().isIdentity).toBeTrue();
  });

  it('keeps what is under the pointer there, and the drawing in its room', async () => {
    const { fixture, room, view, press } = await shown();
    const { left, top, width } = room.getBoundingClientRect();
    room.dispatchEvent(
      new WheelEvent('wheel', { deltaY: -1, clientX: left + 100, clientY: top + 50, cancelable: true }),
    );
    await fixture.whenStable();
    const { a, e, f } = view();
    expect((100 - e) / a).toBeCloseTo(100, 3);
    expect((50 - f) / a).toBeCloseTo(50, 3);
    for (let i = 0; i < 20; i++) await press('ArrowRight');
    expect(view().e).toBeCloseTo(width * (1 - view().a), 0);
    for (let i = 0; i < 40; i++) await press('ArrowLeft');
    expect(view().e).toBeCloseTo(0, 6);
  });
});
