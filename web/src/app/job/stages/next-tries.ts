import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import type { NextTry } from '@voltrek/core/plan';
import { Store } from '@ngrx/store';
import { selectOptions, type Work } from '../../shared/job/job-selectors';
import { inHundred } from '@words/figures';
import { minutesWords, noSourceWords, wayName } from '@words/way-words';
import { PlanRunner } from '../../workers/plan-runner';
import { namesIn } from '@words/option-name';
import { waysAsked, WaysStore } from '../ways-store';
import { Choices } from '../../shared/ui/choices';
import { NEXT_TRIES as T } from '@words/screens/job-stages';

/** So many are shown: more would be a plan, and that has its own stage. */
const SHOWN = 4;
/** After a try that failed: its meaning, and what to do now, the fewest expected minutes first. */
@Component({
  selector: 'vt-next-tries',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices],
  providers: [PlanRunner, WaysStore],
  template: `
    <h2>{{ t.now }}</h2>
    @if (elsewhereText(); as line) {
      <p>{{ line }}</p>
    }
    <div class="choices" role="radiogroup" [attr.aria-label]="t.title">
      @for (row of rows(); track row.id) {
        <button
          type="button"
          role="radio"
          class="choice"
          [attr.aria-checked]="row.id === chosenId()"
          (click)="tappedId.set(row.id)"
        >
          <span class="name">{{ row.name }}</span>
          <span class="odds">{{ row.odds }}</span>
          <span class="dim">{{ row.note }}</span>
        </button>
      } @empty {
        <p class="dim" role="status">{{ t.weighing }}</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .choices {
      display: grid;
      gap: 6px;
    }
    .choice {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 0 14px;
      align-items: center;
      min-height: 52px;
    }
    .name {
      font-weight: 700;
    }
    .odds {
      font-weight: 600;
    }
    .dim {
      grid-column: 1 / -1;
      margin: 0;
      font-size: var(--text-xs);
    }
  `,
})
export class NextTries {
  protected readonly t = T;

  readonly work = input.required<Work>();
  /** The chosen try; the best unless somebody chose otherwise. */
  readonly chosenChange = output<NextTry | null>();

  private readonly store = inject(WaysStore);
  private readonly options = inject(Store).selectSignal(selectOptions);
  private readonly asked = waysAsked(() => this.work().job.attempts.at(-1)?.endedAt ?? null);
  private readonly nameOf = computed(() => namesIn(this.options(), this.work().kit));
  protected readonly rows = computed(() => {
    const shown = this.store.next().slice(0, SHOWN);
    // Again, waiting and looking elsewhere are what one asks for: they are there even when they are poor.
    const asked = this.store.next().filter((n) => n.kind !== 'other' && !shown.includes(n));
    return [...shown, ...asked].map((next) => ({ ...this.rowOf(next), next, id: idOf(next) }));
  });
  /** The tapped try; it stays while the figures are drawn finer. */
  protected readonly tappedId = signal<string | null>(null);
  protected readonly chosenId = computed(() => {
    const tapped = this.rows().find((r) => r.id === this.tappedId());
    return (tapped ?? this.rows()[0])?.id ?? null;
  });
  protected readonly elsewhereText = computed(() => noSourceWords(this.store.noSource()));

  constructor() {
    effect(() => {
      const input = this.asked();
      untracked(() => void this.store.ask(input));
    });
    effect(() => {
      const chosen = this.rows().find((r) => r.id === this.chosenId());
      this.chosenChange.emit(chosen?.next ?? null);
    });
  }

  private rowOf(next: NextTry): { name: string; odds: string; note: string } {
    if (next.kind === 'elsewhere')
      return {
        name: T.goElsewhere,
        odds: inHundred(next.share),
        note: T.elsewhereNote,
      };
    const { point, way } = next;
    const names = {
      again: T.againAsItIs,
      wait: T.waitThenCrank({ waitMinutes: minutesWords(point.waitMinutes) }),
    };
    return {
      name: next.kind === 'other' ? wayName(way, this.nameOf()) : names[next.kind],
      odds: inHundred(point.start),
      note: T.runsIn({ minutes: minutesWords(point.minutes) }),
    };
  }
}

const idOf = (next: NextTry): string =>
  next.kind === 'elsewhere' ? next.kind : `${next.kind} ${next.way.id}`;
