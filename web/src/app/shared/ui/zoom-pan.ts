import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import Panzoom, { type PanzoomObject } from '@panzoom/panzoom';
import { ZOOM_PAN as T } from '@words/screens/ui';

const MOST = 6;
/** Up to this scale it fits: what is zoomed back comes out a hair beside 1. */
const FITS = 1.001;
const STEP = 1.4;
/** An arrow key moves the picture by this share of its room. */
const ARROW_SHARE = 0.15;

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
      [attr.aria-label]="t.label"
      (wheel)="drawing?.zoomWithWheel($event)"
      (keydown)="onKey($event)"
    >
      <div class="moved" #moved (panzoomchange)="isMoved.set(drawing!.getScale() > fits)"><ng-content /></div>
    </div>
    <div class="keys">
      <button type="button" class="key" [attr.aria-label]="t.nearer" (click)="zoom(step)">+</button>
      <button type="button" class="key" [attr.aria-label]="t.farther" (click)="zoom(1 / step)">-</button>
      <button type="button" class="key" [disabled]="!isMoved()" (click)="fit()">
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
    }
    .moved {
      width: 100%;
      height: 100%;
    }
    /* Where the room is small its owner leaves them out: two fingers, or the drawing at full size, do the same. */
    .keys {
      display: var(--zoom-keys, flex);
      flex: none;
      justify-content: flex-end;
    }
  `,
})
export class ZoomPan {
  protected readonly t = T;

  private readonly moved = viewChild.required<ElementRef<HTMLElement>>('moved');
  /** Null until it is on the page. */
  protected drawing: PanzoomObject | null = null;
  protected readonly step = STEP;
  protected readonly fits = FITS;
  protected readonly isMoved = signal(false);

  constructor() {
    const gone = inject(DestroyRef);
    afterNextRender(() => {
      this.drawing = Panzoom(this.moved().nativeElement, {
        canvas: true,
        // The drawing never leaves its room, and is never smaller than it.
        contain: 'outside',
        minScale: 1,
        maxScale: MOST,
        step: Math.log(STEP),
        panOnlyWhenZoomed: true,
        cursor: 'auto',
        // Parts of the drawing may be tapped: only a drag is ours.
        handleStartEvent: () => undefined,
      });
      gone.onDestroy(() => this.drawing?.destroy());
    });
  }

  protected zoom(by: number): void {
    this.drawing?.zoom(this.drawing.getScale() * by);
  }

  protected fit(): void {
    this.drawing?.reset({ animate: false });
  }

  /** By so many shares of its room. */
  private move(dx: number, dy: number): void {
    const { offsetWidth, offsetHeight } = this.moved().nativeElement;
    const scale = this.drawing?.getScale() ?? 1;
    const [x, y] = [offsetWidth, offsetHeight].map((room) => (room * ARROW_SHARE) / scale) as [
      number,
      number,
    ];
    this.drawing?.pan(dx * x, dy * y, { relative: true });
  }

  protected onKey(event: KeyboardEvent): void {
    const moves: Record<string, () => void> = {
      '+': () => this.zoom(STEP),
      '=': () => this.zoom(STEP),
      '-': () => this.zoom(1 / STEP),
      '0': () => this.fit(),
      ArrowLeft: () => this.move(1, 0),
      ArrowRight: () => this.move(-1, 0),
      ArrowUp: () => this.move(0, 1),
      ArrowDown: () => this.move(0, -1),
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    move();
  }
}
