import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal } from '@angular/core';
import { ZOOM_PAN as T } from '@words/screens/ui';

const LEAST = 1;
const MOST = 6;
const STEP = 1.4;
/** An arrow key moves the picture by this share of its room. */
const ARROW_SHARE = 0.15;

interface View {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}
const FIT: View = { scale: 1, x: 0, y: 0 };

/**
 * Room for a drawing that can be brought nearer and moved: by wheel, by two fingers, by dragging, by its keys, and by the keyboard
 * (+, -, 0 and the arrows). The drawing inside fills the room.
 *
 *     <vt-zoom-pan label="Drawing"><vt-circuit ... /></vt-zoom-pan>
 */
@Component({
  selector: 'vt-zoom-pan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="room"
      tabindex="0"
      role="group"
      [attr.aria-label]="t.drawingAndBringItNearerArrows"
      (wheel)="onWheel($event)"
      (pointerdown)="onDown($event)"
      (pointermove)="onMove($event)"
      (pointerup)="onUp($event)"
      (pointercancel)="onUp($event)"
      (keydown)="onKey($event)"
    >
      <div class="moved" [style.transform]="transform()"><ng-content /></div>
    </div>
    <div class="keys">
      <button type="button" class="key" [attr.aria-label]="t.nearer" (click)="zoom(step)">+</button>
      <button type="button" class="key" [attr.aria-label]="t.farther" (click)="zoom(1 / step)">-</button>
      <button type="button" class="key" [disabled]="view() === fit" (click)="view.set(fit)">
        {{ t.fit }}
      </button>
      <ng-content select="[tools]" />
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
      min-height: 0;
      height: 100%;
    }
    .room {
      flex: 1 1 0;
      min-height: 0;
      overflow: hidden;
      touch-action: none;
    }
    .moved {
      width: 100%;
      height: 100%;
      transform-origin: 0 0;
    }
    .keys {
      flex: none;
      justify-content: flex-end;
    }
  `,
})
export class ZoomPan {
  protected readonly t = T;

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly pointers = new Map<number, { x: number; y: number }>();

  protected readonly step = STEP;
  protected readonly fit = FIT;
  protected readonly view = signal<View>(FIT);
  protected readonly transform = computed(() => {
    const { scale, x, y } = this.view();
    return `translate(${x}px, ${y}px) scale(${scale})`;
  });

  private room(): DOMRect {
    return this.host.querySelector('.room')!.getBoundingClientRect();
  }

  /** Brings the drawing nearer around a spot of the room; around its middle when none is given. */
  protected zoom(by: number, at?: { x: number; y: number }): void {
    const { width, height } = this.room();
    const { x: atX, y: atY } = at ?? { x: width / 2, y: height / 2 };
    this.view.update(({ scale, x, y }) => {
      const next = Math.min(MOST, Math.max(LEAST, scale * by));
      const ratio = next / scale;
      return this.held({ scale: next, x: atX - (atX - x) * ratio, y: atY - (atY - y) * ratio });
    });
  }

  private move(dx: number, dy: number): void {
    this.view.update(({ scale, x, y }) => this.held({ scale, x: x + dx, y: y + dy }));
  }

  /** The drawing never leaves its room. */
  private held({ scale, x, y }: View): View {
    if (scale === LEAST) return FIT;
    const { width, height } = this.room();
    const within = (value: number, room: number): number => Math.min(0, Math.max(room - room * scale, value));
    return { scale, x: within(x, width), y: within(y, height) };
  }

  protected onWheel(event: WheelEvent): void {
    event.preventDefault();
    const { left, top } = this.room();
    const at = { x: event.clientX - left, y: event.clientY - top };
    this.zoom(event.deltaY < 0 ? STEP : 1 / STEP, at);
  }

  protected onDown(event: PointerEvent): void {
    this.pointers.set(event.pointerId, { x: event.clientX, y: event.clientY });
  }

  protected onMove(event: PointerEvent): void {
    const before = this.pointers.get(event.pointerId);
    if (!before) return;
    const now = { x: event.clientX, y: event.clientY };
    const [other] = [...this.pointers].filter(([id]) => id !== event.pointerId).map(([, at]) => at);
    if (other) {
      const { left, top } = this.room();
      const span = (at: { x: number; y: number }): number => Math.hypot(at.x - other.x, at.y - other.y);
      const middle = { x: (now.x + other.x) / 2 - left, y: (now.y + other.y) / 2 - top };
      if (span(before) > 0) this.zoom(span(now) / span(before), middle);
    } else this.move(now.x - before.x, now.y - before.y);
    this.pointers.set(event.pointerId, now);
  }

  protected onUp(event: PointerEvent): void {
    this.pointers.delete(event.pointerId);
  }

  protected onKey(event: KeyboardEvent): void {
    const { width, height } = this.room();
    const moves: Record<string, () => void> = {
      '+': () => this.zoom(STEP),
      '=': () => this.zoom(STEP),
      '-': () => this.zoom(1 / STEP),
      '0': () => this.view.set(FIT),
      ArrowLeft: () => this.move(width * ARROW_SHARE, 0),
      ArrowRight: () => this.move(-width * ARROW_SHARE, 0),
      ArrowUp: () => this.move(0, height * ARROW_SHARE),
      ArrowDown: () => this.move(0, -height * ARROW_SHARE),
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    move();
  }
}
