import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { fixed } from '@words/numbers';
import { isPositivePoint, type Machine } from '@voltrek/core/machine';
import { type DrawnPin, CIRCUIT_WIDTH, MARGIN, type XY } from './drawing';
import { polygon } from './outline';
import { pushedApart } from './pins';
import { SIDE_VIEW as T } from '@words/screens/drawing';

/** Room under the ground line for its name, drawing units. */
const UNDER_GROUND = 30;
const HEIGHT = 330;
/** A battery's case is about this tall, mm. */
const BATTERY_TALL_MM = 190;

export interface SideDrawing {
  readonly outline: string;
  readonly wheels: readonly (XY & { readonly r: number })[];
  readonly batteries: readonly string[];
  readonly pins: readonly DrawnPin[];
  readonly groundY: number;
  /** A metre, for the scale. */
  readonly metre: number;
}

/** The machine from its left, front to the left: heights are real. Null for one without a side view. */
export function layoutSide(machine: Machine): SideDrawing | null {
  const { side, lengthMm, batteries, points } = machine;
  if (!side) return null;
  const groundY = HEIGHT - UNDER_GROUND;
  const scale = Math.min((CIRCUIT_WIDTH - 2 * MARGIN) / lengthMm, (groundY - 2 * MARGIN) / side.heightMm);
  const left = (CIRCUIT_WIDTH - lengthMm * scale) / 2;
  const at = (yMm: number, zMm: number): XY => ({ x: left + yMm * scale, y: groundY - zMm * scale });
  // Points whose height nobody has noted are not drawn at a height.
  const known = points.flatMap((point, i) =>
    point.heightMm === undefined ? [] : [{ point, number: i + 1, spot: at(point.yMm, point.heightMm) }],
  );
  const places = pushedApart(
    known.map(({ spot }) => spot),
    { width: CIRCUIT_WIDTH, height: groundY + MARGIN },
  );
  return {
    outline: polygon(side.outline.map((p) => at(p.yMm, p.zMm))),
    wheels: side.wheels.map((w) => ({ ...at(w.yMm, w.zMm), r: w.radiusMm * scale })),
    batteries: batteries.map(({ rect, topMm }) =>
      polygon([
        at(rect.yMm, topMm),
        at(rect.yMm + rect.lengthMm, topMm),
        at(rect.yMm + rect.lengthMm, topMm - BATTERY_TALL_MM),
        at(rect.yMm, topMm - BATTERY_TALL_MM),
      ]),
    ),
    pins: known.map(({ point, number, spot }, i) => ({
      number,
      pointId: point.id,
      label: point.label,
      point: spot,
      at: places[i]!,
      isPositive: isPositivePoint(point.kind),
    })),
    groundY,
    metre: 1000 * scale,
  };
}

/** How high things are: the side view with the same numbers as the plan. */
@Component({
  selector: 'vt-side-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (drawing(); as d) {
      <svg [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="summary()">
        <path [attr.d]="d.outline" class="body" />
        @for (w of d.wheels; track $index) {
          <circle [attr.cx]="w.x" [attr.cy]="w.y" [attr.r]="w.r" class="wheel" />
        }
        @for (b of d.batteries; track $index) {
          <path [attr.d]="b" class="battery" />
        }
        <path [attr.d]="'M0 ' + d.groundY + 'H' + width" class="ground" />
        <path [attr.d]="'M16 ' + (d.groundY + 10) + 'v6h' + d.metre + 'v-6'" class="scale" />
        <text [attr.x]="24 + d.metre" [attr.y]="d.groundY + 20" class="metre">{{ t.aMetre }}</text>
        @for (p of d.pins; track p.pointId) {
          <path [attr.d]="'M' + p.point.x + ' ' + p.point.y + 'L' + p.at.x + ' ' + p.at.y" class="scale" />
        }
        @for (p of d.pins; track p.pointId) {
          <g
            class="pin"
            [attr.transform]="'translate(' + p.at.x + ' ' + p.at.y + ')'"
            [class.chosen]="p.pointId === chosenPin()"
            (click)="pinChosen.emit(p.pointId)"
          >
            <circle r="13" [class.positive]="p.isPositive" />
            <text y="5.5">{{ p.number }}</text>
          </g>
        }
      </svg>
    } @else {
      <p class="dim">{{ t.none }}</p>
    }
  `,
  styleUrl: './drawing.scss',
  styles: `
    :host {
      display: block;
      min-height: 0;
      height: 100%;
    }
    svg {
      display: block;
      width: 100%;
      height: 100%;
    }
    .wheel {
      fill: var(--sheet);
      stroke: var(--ink);
      stroke-width: 5;
    }
    .ground {
      stroke: var(--ink);
      stroke-width: 3;
    }
    .scale {
      fill: none;
      stroke: var(--ink);
      stroke-width: 1.3;
    }
    .metre {
      text-anchor: start;
    }
    .pin.chosen circle {
      stroke: var(--lamp);
      stroke-width: 5;
      r: 16px;
    }
  `,
})
export class SideView {
  protected readonly t = T;

  readonly machine = input.required<Machine>();
  readonly chosenPin = input<string | null>(null);
  readonly pinChosen = output<string>();

  protected readonly width = CIRCUIT_WIDTH;
  protected readonly height = HEIGHT;
  protected readonly drawing = computed(() => layoutSide(this.machine()));
  protected readonly summary = computed(() => {
    const heights = this.machine().points.flatMap((p) =>
      p.heightMm === undefined ? [] : [T.mUp({ label: p.label, height: fixed(p.heightMm / 1000, 2) })],
    );
    return [T.sideView, ...heights].join(', ');
  });
}
