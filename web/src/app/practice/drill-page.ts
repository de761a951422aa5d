import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { inWords } from '@words/template-words';
import { RouterLink } from '@angular/router';
import { type Drill, DRILL_KINDS, type DrillKind } from '@voltrek/core/practice';
import { drillChoices, drillLines, DRILL_WORDS, drillWhy } from '@words/drill-words';
import { DRILL_PAGE as T } from '@words/screens/practice';
import { layoutCircuit } from '../shared/drawing/circuit-layout';
import { CircuitView } from '../shared/drawing/circuit-view';
import { Chart } from '../shared/ui/chart';
import type { ChartColours } from '../shared/ui/colours';
import { Choices } from '../shared/ui/choices';
import { PlanRunner } from '../workers/plan-runner';
import { drillTrace, drillTraceWords } from './drill-trace';
import { PracticeRecord } from './practice-record';

/** A drill is meant to take so long, s. */
const SECONDS = 60;

/** One question after another, a minute each: what to do next, marked right or wrong with the figures behind it. */
@Component({
  selector: 'vt-drill-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart, Choices, CircuitView, RouterLink],
  providers: [PlanRunner],
  host: { class: 'page' },
  template: `
    <header>
      <h1>{{ t.drills }}</h1>
      <span class="dim">{{ t.ofAMinute }}</span>
      <a class="key" routerLink="/practice">{{ t.ladder }}</a>
    </header>
    <div class="keys" role="radiogroup" [attr.aria-label]="t.which">
      @for (k of kinds; track k) {
        <button
          type="button"
          class="key"
          role="radio"
          [attr.aria-checked]="kind() === k"
          (click)="kind.set(k)"
        >
          {{ words[k].name }} <span class="dim">{{ progress()[k] }}</span>
        </button>
      }
    </div>
    @if (drill(); as d) {
      <div class="card" [class.traced]="trace()">
        <section aria-live="polite">
          <h2>{{ words[d.kind].asks }}</h2>
          @for (line of lines(); track $index) {
            <p>{{ line }}</p>
          }
          <div class="answers" role="group" [attr.aria-label]="words[d.kind].asks">
            @for (choice of choices(); track $index; let i = $index) {
              <button
                type="button"
                class="key"
                [class.right]="given() !== null && i === d.right"
                [class.wrong]="given() === i && i !== d.right"
                [disabled]="given() !== null"
                (click)="answer(i)"
              >
                @if (mark(i); as icon) {
                  <i class="bi" [class]="icon" aria-hidden="true"></i>
                }
                {{ choice }}
              </button>
            }
          </div>
        </section>
        <section>
          @if (given() === null) {
            <p class="dim">{{ left() > 0 ? t.left({ seconds: left() }) : t.overTime }}</p>
          } @else {
            <p role="status">
              <strong [class.tone-good]="isRight()" [class.tone-bad]="!isRight()">{{ result() }}</strong>
            </p>
            @for (line of why(); track $index) {
              <p class="dim">{{ line }}</p>
            }
            <button type="button" class="key strong" (click)="next()">{{ t.next }}</button>
          }
          @if (trace(); as read) {
            <vt-chart [draw]="read.draw" [summary]="read.summary" />
          }
          @if (drawing(); as circuit) {
            <vt-circuit [drawing]="circuit" />
          }
        </section>
      </div>
    } @else {
      <p class="dim" role="status">{{ t.drawing }}</p>
    }
  `,
  styles: `
    @use 'media';

    .card {
      margin-top: 18px;
      padding: 18px 22px;
      border: 2px solid var(--ink);
      border-radius: 6px;
      background: var(--sheet);
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 480px);
      gap: 28px;
    }
    .key .dim {
      color: inherit;
      font-weight: 500;
    }
    section {
      display: grid;
      gap: 10px;
      align-content: start;
    }
    h2 {
      font-size: var(--text-xl);
    }
    p {
      margin: 0;
      font-size: var(--text-m);
      line-height: 1.3;
    }
    .answers {
      display: grid;
      gap: 8px;
      max-width: 560px;
    }
    .answers .key {
      min-height: 56px;
      text-align: left;
      opacity: 1;
    }
    .right {
      border-color: var(--ok);
      border-width: 3px;
    }
    .wrong {
      border-color: var(--bad);
      border-width: 3px;
    }
    .strong {
      justify-self: start;
    }
    vt-circuit {
      height: 400px;
    }
    vt-chart {
      height: 320px;
    }
    @include media.phone {
      .card {
        grid-template-columns: 1fr;
      }
      vt-circuit {
        height: 340px;
      }
      /* What is to be read comes before what it may be. */
      .traced section:last-child {
        order: -1;
      }
      vt-chart {
        height: 240px;
      }
    }
  `,
})
export class DrillPage {
  protected readonly t = T;

  private readonly record = inject(PracticeRecord);
  private readonly runner = inject(PlanRunner);
  protected readonly kinds = DRILL_KINDS;
  protected readonly words = DRILL_WORDS;
  protected readonly kind = signal<DrillKind>('order');
  protected readonly drill = signal<Drill | null>(null);
  protected readonly given = signal<number | null>(null);
  protected readonly left = signal(SECONDS);
  /** The number of the drill asked; answers move it on. */
  private readonly number = signal(0);

  protected readonly lines = computed(() => drillLines(this.drill()!));
  protected readonly choices = computed(() => drillChoices(this.drill()!));
  protected readonly why = computed(() => drillWhy(this.drill()!, this.given()!));
  protected readonly isRight = computed(() => this.given() === this.drill()?.right);
  protected readonly result = computed(() => {
    if (!this.isRight()) return T.wrong({ right: this.choices()[this.drill()!.right] });
    return this.left() > 0 ? T.right : T.rightLate;
  });
  protected readonly trace = computed(() => {
    const drill = this.drill();
    return drill?.kind === 'trace'
      ? { draw: (colours: ChartColours) => drillTrace(drill, colours), summary: drillTraceWords(drill) }
      : null;
  });
  protected readonly drawing = computed(() => {
    const drill = this.drill();
    if (drill?.kind !== 'order') return null;
    const { machine, scene, state } = drill;
    return layoutCircuit({
      ...{ machine: inWords(machine), donor: scene.donor && inWords(scene.donor), scene, hookup: state },
      ...{ step: null, isCranking: false, showPins: false, machineName: '' },
    });
  });

  constructor() {
    effect(() => {
      const kind = this.kind();
      untracked(() => void this.ask(kind));
    });
    const clock = setInterval(() => {
      if (this.drill() && this.given() === null) this.left.update((s) => Math.max(0, s - 1));
    }, 1000);
    inject(DestroyRef).onDestroy(() => clearInterval(clock));
  }

  /** Read from the device anew with each answer, not with each second. */
  protected readonly progress = computed((): Partial<Record<DrillKind, string>> => {
    this.given();
    return Object.fromEntries(
      DRILL_KINDS.map((kind) => {
        const { next, passed } = this.record.progressOf(`drill-${kind}`);
        return [kind, next > 1 ? T.rightOf({ right: passed, asked: next - 1 }) : ''];
      }),
    );
  });

  /** Shown by a sign as well as by colour. */
  protected mark(at: number): string {
    const given = this.given();
    if (given === null) return '';
    return at === this.drill()!.right ? 'bi-check-lg' : at === given ? 'bi-x-lg' : '';
  }

  protected answer(at: number): void {
    const drill = this.drill();
    if (!drill || this.given() !== null) return;
    this.given.set(at);
    const passed = at === drill.right && this.left() > 0;
    this.record.drillEnded(drill.kind, this.number(), passed);
  }

  protected next(): void {
    void this.ask(this.kind());
  }

  private async ask(kind: DrillKind): Promise<void> {
    const number = this.record.progressOf(`drill-${kind}`).next;
    this.drill.set(null);
    this.given.set(null);
    const run = this.runner.begin();
    const { drill } = await run.ask((worker) => worker.drill(kind, number));
    if (!run.isCurrent()) return;
    this.number.set(number);
    this.left.set(SECONDS);
    this.drill.set(drill);
  }
}
