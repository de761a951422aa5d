import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { allOf, fixed } from '@words/numbers';
import { shownUnit } from '@words/units';
import { AMPS_TAG, type CircuitDrawing, SHOWN_AMPS, type Size } from './drawing';
import { partShown } from './part-shown';
import { CIRCUIT_VIEW as T } from '@words/screens/drawing';
import { amps } from '@words/figures';

/** A lead that a try warms by less counts as cold, K. */
const SHOWN_RISE_K = 1;
/** Marks on a lead take so long from one place to the next: the quicker the more amps, s. */
const SLOWEST_S = 3;
const QUICKEST_S = 0.25;

/** The live circuit of the rescue as a drawing: vehicles, points, leads, clamps, volts and amps. */
@Component({
  selector: 'vt-circuit',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawing();
    <svg [attr.viewBox]="viewBox()" role="img" [attr.aria-label]="summary()">
      <defs>
        <pattern id="hot" width="9" height="9" patternUnits="userSpaceOnUse">
          <path d="M0 9 9 0" class="hatch" />
        </pattern>
        <pattern id="moving" width="9" height="9" patternUnits="userSpaceOnUse">
          <path d="M0 0 9 9M0 9 9 0" class="hatch" />
        </pattern>
        <pattern id="dots" width="24" height="24" patternUnits="userSpaceOnUse">
          <circle cx="12" cy="12" r="1.1" class="dot" />
        </pattern>
      </defs>
      <rect [attr.width]="d.width" [attr.height]="d.height" fill="url(#dots)" />
      @for (v of d.vehicles; track v.name) {
        <g>
          @for (w of v.wheels; track $index) {
            <path [attr.d]="w" class="wheel" />
          }
          <path [attr.d]="v.outline" class="body" />
          @for (g of v.glass; track $index) {
            <path [attr.d]="g" class="glass" />
          }
          @for (z of v.zones; track $index) {
            <path [attr.d]="z.path" class="zone" [attr.fill]="'url(#' + z.kind + ')'" />
          }
          @for (b of v.batteries; track $index) {
            <path [attr.d]="b.path" class="battery" />
            @if (!d.pins.length) {
              <text [attr.x]="b.label.x" [attr.y]="b.label.y" class="small">{{ b.text }}</text>
            }
          }
          <text [attr.x]="v.namePlace.x" [attr.y]="v.namePlace.y" class="name">{{ v.name }}</text>
        </g>
      }
      @if (d.pack; as pack) {
        <g [attr.transform]="'translate(' + pack.at.x + ' ' + pack.at.y + ')'">
          <rect width="74" height="56" rx="7" class="pack" />
          <text x="37" y="25" class="name">{{ pack.name }}</text>
          <text x="37" y="43" class="small">
            {{ pack.isOn === null ? t.n12VEach : pack.isOn ? t.on : t.off }}
          </text>
        </g>
      }
      @for (l of d.leads; track l.isRed) {
        @if (!l.isRed) {
          <path [attr.d]="l.path" class="lead edge" />
        }
        <path [attr.d]="l.path" class="lead" [class.red]="l.isRed" [class.black]="!l.isRed" />
        @if (l.tag) {
          <path
            [attr.d]="l.path"
            class="flow"
            [class.back]="!l.isForth"
            [style.animation-duration.s]="secondsAt(l.amps)"
          />
        }
      }
      @if (d.target; as target) {
        <g [attr.transform]="'translate(' + target.at.x + ' ' + target.at.y + ')'">
          <circle r="21" class="ring" />
          <path [attr.d]="target.pole" class="ring" />
        </g>
        <g [attr.transform]="'translate(' + target.flag.x + ' ' + target.flag.y + ')'">
          <rect width="106" height="32" rx="3" class="flag" />
          <text x="53" y="21.5" class="flag-text">{{ target.isRemoval ? t.takeOff : t.clampHere }}</text>
        </g>
      }
      @for (c of d.clamps; track c.clamp) {
        <g [attr.transform]="'translate(' + c.at.x + ' ' + c.at.y + ')'" [class.free]="c.isFree">
          @if (c.isRed) {
            <path d="M0 -15 15 0 0 15 -15 0Z" class="plus-mark" />
            <path d="M-6 0H6M0 -6V6" class="plus-sign" />
          } @else {
            <rect x="-16" y="-9" width="32" height="18" rx="1" class="bar-mark" />
            <path d="M-7 0H7" class="bar-sign" />
          }
          @if (c.isFree) {
            <text y="30" class="small free-end">{{ t.freeEnd }}</text>
          }
        </g>
      }
      @for (p of d.pins; track p.pointId) {
        <path [attr.d]="'M' + p.point.x + ' ' + p.point.y + 'L' + p.at.x + ' ' + p.at.y" class="leader" />
        <circle [attr.cx]="p.point.x" [attr.cy]="p.point.y" r="3" class="spot" />
      }
      @for (p of d.pins; track p.pointId) {
        <g
          class="pin"
          [attr.transform]="'translate(' + p.at.x + ' ' + p.at.y + ')'"
          [class.chosen]="p.pointId === chosenPin()"
          [attr.data-point]="p.pointId"
          (click)="pinChosen.emit(p.pointId)"
        >
          <circle r="24" class="hit" />
          <circle r="13" [class.positive]="p.isPositive" />
          <text y="5.5">{{ p.number }}</text>
        </g>
      }
      @for (p of d.probes; track p.part) {
        <path [attr.d]="'M' + p.tip.x + ' ' + p.tip.y + 'L' + p.handle.x + ' ' + p.handle.y" class="needle" />
        <g [attr.transform]="'translate(' + p.handle.x + ' ' + p.handle.y + ')'">
          @switch (p.part) {
            @case ('red') {
              <path d="M0 -13 13 0 0 13 -13 0Z" class="plus-mark" />
              <path d="M-5 0H5M0 -5V5" class="plus-sign" />
            }
            @case ('black') {
              <rect x="-14" y="-8" width="28" height="16" rx="1" class="bar-mark" />
              <path d="M-6 0H6" class="bar-sign" />
            }
            @default {
              <circle r="11" class="jaws" />
            }
          }
        </g>
      }
      @for (l of d.leads; track l.isRed) {
        @if (l.tag; as tag) {
          <g [attr.transform]="'translate(' + tag.x + ' ' + tag.y + ')'">
            <rect [attr.width]="ampsTag.width" [attr.height]="ampsTag.height" rx="3" class="tag" />
            <text x="31" y="18.5" class="tag-text">{{ amps(l.amps) }}</text>
            @if (l.isRed && l.warmsK >= shownRise) {
              <!-- Above the amps: those of the black lead stand below. -->
              <rect x="-27" y="-24" width="116" height="22" rx="3" class="tag" />
              <text x="31" y="-8" class="small">{{ t.warms({ rise: rise(l.warmsK) }) }}</text>
            }
          </g>
        }
      }
      @for (v of d.volts; track $index) {
        <g [attr.transform]="'translate(' + v.at.x + ' ' + v.at.y + ')'">
          <rect width="92" height="28" rx="3" class="tag" />
          <text x="46" y="20" class="tag-text">{{ v.text }}</text>
        </g>
      }
    </svg>
  `,
  styleUrl: './drawing.scss',
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    svg {
      display: block;
      width: 100%;
      height: 100%;
      font-family: inherit;
    }
    .dot {
      fill: var(--dots);
    }
    .small {
      font-size: var(--text-xs);
      font-weight: 500;
    }
    /* A lead may pass behind the words. */
    .free-end {
      paint-order: stroke;
      stroke: var(--sheet);
      stroke-width: 5px;
      stroke-linejoin: round;
    }
    .plus-mark {
      fill: var(--positive);
      stroke: var(--sheet);
      stroke-width: 1.5;
    }
    .plus-sign {
      stroke: var(--on-positive);
      stroke-width: 3;
    }
    .bar-mark {
      fill: var(--negative);
      stroke: var(--negative-edge);
      stroke-width: 1.8;
    }
    .bar-sign {
      stroke: var(--on-negative);
      stroke-width: 3;
    }
    .free .plus-mark,
    .free .bar-mark {
      stroke-dasharray: 4 3;
      stroke: var(--ink);
    }
    .ring {
      fill: none;
      stroke: var(--lamp);
      stroke-width: 4.5;
    }
    .needle {
      fill: none;
      stroke: var(--ink);
      stroke-width: 3.5;
      stroke-linecap: round;
    }
    .jaws {
      fill: none;
      stroke: var(--lamp);
      stroke-width: 5;
    }
    .flow {
      fill: none;
      stroke: var(--lamp);
      stroke-width: 4;
      stroke-linecap: round;
      stroke-dasharray: 1 23;
      animation: flow linear infinite;
    }
    .flow.back {
      animation-direction: reverse;
    }
    @keyframes flow {
      to {
        stroke-dashoffset: -24;
      }
    }
    @media (prefers-reduced-motion: reduce) {
      .flow {
        animation: none;
      }
    }
    .flag {
      fill: var(--lamp);
    }
    .flag-text {
      fill: var(--on-lamp);
      font-size: var(--text-s);
      font-weight: 700;
    }
    .tag {
      fill: var(--sheet);
      stroke: var(--ink);
      stroke-width: 1.2;
    }
    .tag-text {
      font-size: var(--text-s);
      font-weight: 700;
      font-variant-numeric: tabular-nums;
    }
    .leader {
      stroke: var(--ink);
      stroke-width: 1.2;
    }
    .spot {
      fill: var(--ink);
    }
    .pin .hit {
      fill: transparent;
      stroke: none;
    }
    .pin.chosen circle:not(.hit) {
      stroke: var(--lamp);
      stroke-width: 5;
      r: 16px;
    }
  `,
})
export class CircuitView {
  protected readonly fixed = fixed;
  protected readonly t = T;

  readonly drawing = input.required<CircuitDrawing>();
  readonly chosenPin = input<string | null>(null);
  /** In a room too small for all of it, the part around where hands go. */
  readonly isNear = input(false);
  readonly pinChosen = output<string>();

  private readonly room = signal<Size>({ width: 0, height: 0 });
  protected readonly viewBox = computed(() => {
    const { x, y, width, height } = partShown(
      this.drawing(),
      this.isNear() ? this.room() : { width: 0, height: 0 },
      this.chosenPin(),
    );
    return `${x} ${y} ${width} ${height}`;
  });

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const observer = new ResizeObserver(([seen]) => {
      if (seen) this.room.set({ width: seen.contentRect.width, height: seen.contentRect.height });
    });
    afterNextRender(() => observer.observe(host));
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }

  protected readonly ampsTag = AMPS_TAG;
  protected readonly amps = amps;
  protected readonly shownRise = SHOWN_RISE_K;

  /** How long a mark takes to the next one's place at these amps: half as long for four times as many. */
  protected secondsAt(amps: number): number {
    return Math.min(SLOWEST_S, Math.max(QUICKEST_S, SLOWEST_S / Math.sqrt(amps / SHOWN_AMPS / 4)));
  }

  /** A rise, in the degrees that are shown. */
  protected rise(kelvins: number): string {
    const { unit, show } = shownUnit('°C');
    return `${fixed(show(kelvins) - show(0))} ${unit}`;
  }

  /** The drawing in one sentence, for those who do not see it. */
  protected readonly summary = computed(() => {
    const { vehicles, pack, clamps, volts } = this.drawing();
    const parts = [
      T.drawingOfThe({ parts: allOf(vehicles.map((v) => v.name)), pack: pack ? T.andThePack : '' }),
      ...clamps.map((c) => T.clamp({ colour: c.isRed ? 'red' : 'black', label: c.label })),
      ...volts.map((v) => v.text),
    ];
    return parts.join(', ');
  });
}
