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
    const frame = async (): Promise<void> => {
      await new Promise(requestAnimationFrame);
      await fixture.whenStable();
    };
    const press = async (key: string): Promise<void> => {
      room.dispatchEvent(new KeyboardEvent('keydown', { key }));
      await frame();
    };
    /** The place of a spot of the room, in pixels from its corner, before the drawing was moved: it turns about its middle. */
    const spotOf = (x: number, y: number): DOMPoint => {
      const middle = [room.clientWidth / 2, room.clientHeight / 2] as const;
      const turned = new DOMMatrix()
        .translate(...middle)
        .multiply(view())
        .translate(-middle[0], -middle[1]);
      return turned.inverse().transformPoint(new DOMPoint(x, y));
    };
    const button = (name: string): HTMLButtonElement =>
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!;
    // It settles once it stands on the page.
    await new Promise((done) => setTimeout(done));
    await frame();
    return { root, room, view, press, frame, spotOf, button };
  }

  it('comes nearer and goes back by keyboard, never farther than fitting', async () => {
    const { view, press, button, frame } = await shown();
    expect(button('Fit').disabled).toBeTrue();
    await press('+');
    await press('+');
    expect(view().a).toBeCloseTo(1.96, 6);
    expect(button('Fit').disabled).toBeFalse();
    await press('0');
    expect(view().a).toBeCloseTo(1, 5);
    expect(view().e).toBeCloseTo(0, 3);
    await press('-');
    expect(view().a).toBeCloseTo(1, 5);
    expect(view().e).toBeCloseTo(0, 3);
    await press('+');
    button('Fit').click();
    await frame();
    expect(view().a).toBeCloseTo(1, 5);
    expect(view().e).toBeCloseTo(0, 3);
    expect(button('Fit').disabled).toBeTrue();
  });

  it('keeps what is under the pointer there, and the drawing in its room', async () => {
    const { room, press, frame, spotOf } = await shown();
    const { left, top, width } = room.getBoundingClientRect();
    const at = { clientX: left + 100, clientY: top + 50, cancelable: true };
    room.dispatchEvent(new WheelEvent('wheel', { deltaY: -1, ...at }));
    await frame();
    expect(spotOf(100, 50).x).toBeCloseTo(100, 1);
    expect(spotOf(100, 50).y).toBeCloseTo(50, 1);
    for (let i = 0; i < 20; i++) await press('ArrowRight');
    expect(spotOf(width, 0).x).toBeCloseTo(width, 1);
    for (let i = 0; i < 40; i++) await press('ArrowLeft');
    expect(spotOf(0, 0).x).toBeCloseTo(0, 1);
  });

  it('is dragged with one finger once it is nearer, also when the finger leaves the room', async () => {
    const { room, press, frame, spotOf } = await shown();
    await press('+');
    const { left, top } = room.getBoundingClientRect();
    const finger = (type: string, x: number, y: number, on: EventTarget): boolean =>
      on.dispatchEvent(
        new PointerEvent(type, {
          pointerId: 1,
          clientX: left + x,
          clientY: top + y,
          bubbles: true,
          isPrimary: true,
        }),
      );
    const before = spotOf(200, 150);
    finger('pointerdown', 200, 150, room);
    finger('pointermove', 170, 150, document);
    await frame();
    expect(spotOf(170, 150).x).toBeCloseTo(before.x, 1);
    finger('pointermove', 150, -40, document);
    finger('pointerup', 150, -40, document);
    await frame();
    expect(spotOf(150, 150).x).toBeCloseTo(before.x, 1);
    finger('pointermove', 300, 200, document);
    await frame();
    expect(spotOf(150, 150).x).toBeCloseTo(before.x, 1);
  });
});
