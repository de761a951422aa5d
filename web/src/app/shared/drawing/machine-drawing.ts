import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { NOTHING_CONNECTED } from '@voltrek/core/hookup';
import type { Machine } from '@voltrek/core/machine';
import { ZoomPan } from '../ui/zoom-pan';
import { ZONE_WORDS } from '@words/atlas-words';
import { CircuitView } from './circuit-view';
import { layoutCircuit } from './circuit-layout';
import { SideView } from './side-view';
import { MACHINE_DRAWING as T } from '@words/screens/drawing';

/** One machine with its numbered points, in plan or from the side; nearer, moved, or on paper. */
@Component({
  selector: 'vt-machine-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CircuitView, SideView, ZoomPan],
  host: { class: 'printable' },
  template: `
    <vt-zoom-pan>
      @if (isSide()) {
        <vt-side-view [machine]="machine()" [chosenPin]="chosenPin()" (pinChosen)="pinChosen.emit($event)" />
      } @else {
        <vt-circuit
          [drawing]="drawing()"
          [isNear]="isNear()"
          [chosenPin]="chosenPin()"
          (pinChosen)="pinChosen.emit($event)"
        />
      }
      <ng-container tools>
        <button
          type="button"
          class="key"
          [attr.aria-pressed]="isSide()"
          [disabled]="!machine().side"
          (click)="isSide.set(!isSide())"
        >
          {{ t.side }}
        </button>
        <button type="button" class="key" (click)="print()">{{ t.print }}</button>
      </ng-container>
    </vt-zoom-pan>
    @if (zones(); as text) {
      <p class="dim zones">{{ text }}</p>
    }
    <div class="on-paper">
      <h1>{{ machine().maker }} {{ machine().model }}</h1>
      <ol>
        @for (p of machine().points; track p.id) {
          <li>
            <strong>{{ p.label }}</strong> {{ p.steps.join(' ') }}
          </li>
        }
      </ol>
      @for (line of machine().cautions; track $index) {
        <p>! {{ line }}</p>
      }
      @for (line of machine().never; track $index) {
        <p>{{ t.never({ line }) }}</p>
      }
    </div>
  `,
  styles: `
    @use 'media';

    :host {
      box-sizing: border-box;
      display: flex;
      flex-direction: column;
      min-height: 0;
      height: 100%;
    }
    vt-zoom-pan {
      flex: 1 1 0;
    }
    vt-circuit {
      height: 100%;
    }
    .zones {
      padding-top: 6px;
      font-size: var(--text-xs);
    }
    @include media.phone {
      .zones {
        display: none;
      }
    }
    .on-paper {
      display: none;
    }
    @media print {
      .on-paper {
        display: block;
      }
      .zones {
        display: none;
      }
    }
  `,
})
export class MachineDrawing {
  protected readonly t = T;

  readonly machine = input.required<Machine>();
  readonly chosenPin = input<string | null>(null);
  /** In a room too small for all of it, the part around the points. */
  readonly isNear = input(false);
  readonly pinChosen = output<string>();

  protected readonly isSide = signal(false);
  protected readonly drawing = computed(() =>
    layoutCircuit({
      machine: this.machine(),
      donor: null,
      scene: null,
      hookup: NOTHING_CONNECTED,
      isCranking: false,
      step: null,
      showPins: true,
      machineName: this.machine().model,
    }),
  );
  protected readonly zones = computed(() => {
    const { zones } = this.machine();
    return zones.length > 0
      ? T.keepLeadsOff({ list: zones.map((z) => `${z.label} (${ZONE_WORDS[z.kind]})`).join(', ') })
      : null;
  });

  protected print(): void {
    window.print();
  }
}
