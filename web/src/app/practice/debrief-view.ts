import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { codeOf, type Happened, type Lesson, readCaseCode, type World } from '@voltrek/core/practice';
import { hazardWhy } from '@words/hazard-words';
import { CAUSE_WORDS, FINDING_NAMES } from '@words/diagnosis-words';
import {
  cameWords,
  FAILING_WORDS,
  practiceActionWords,
  rightWords,
  SKILL_WORDS,
} from '@words/practice-words';
import { inHundred } from '@words/figures';
import { DEBRIEF as T } from '@words/screens/practice';
import { Chart } from '../shared/ui/chart';
import type { ChartColours } from '../shared/ui/colours';
import type { PracticeEnd } from '../workers/plan.worker';
import { beliefChart, beliefSummary } from './belief-chart';

/** The result of a run: passed or not and why, the truth, the risks, and the tool's own run beside it. */
@Component({
  selector: 'vt-debrief',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart, RouterLink],
  template: `
    @if (debrief(); as d) {
      <section class="worth">
        <h1 [class]="d.passed ? 'tone-good' : 'tone-bad'">{{ d.passed ? t.passed : t.notPassed }}</h1>
        <p class="truth">{{ t.truth({ name: truth() }) }}</p>
        <p>
          {{ t.right({ name: right() }) }}
          {{ t.minutes({ own: minutes(d.minutes), tool: minutes(d.toolMinutes ?? 0) }) }}
        </p>
        @for (failing of d.failings; track failing) {
          <p class="caution"><span aria-hidden="true">!</span> {{ failingWords[failing] }}</p>
        }
        @if (missing(); as line) {
          <p>{{ line }}</p>
        }
        @if (lost(); as line) {
          <p>{{ line }}</p>
        }
        <div class="keys">
          <a class="key strong" [routerLink]="['/practice', nextCode()]">{{ t.nextCase }}</a>
          <button type="button" class="key" (click)="playFrom.emit(0)">{{ t.again }}</button>
        </div>
      </section>
      <section>
        <h2>{{ t.skills }}</h2>
        <ul class="ruled">
          @for (skill of end()!.skills; track skill.id) {
            <li class="skill" [class]="skill.good ? 'tone-good' : 'tone-bad'">
              <span>{{ skillWords[skill.id] }}</span>
              <span class="came">
                <i class="bi" [class]="skill.good ? 'bi-check-lg' : 'bi-x-lg'" aria-hidden="true"></i>
                {{ skill.good ? t.shown : t.missed }}
              </span>
            </li>
          }
        </ul>
      </section>
      <section class="belief">
        <h2>{{ t.belief }}</h2>
        <div class="chart"><vt-chart [draw]="draw()" [summary]="summary()" /></div>
      </section>
      <section>
        <h2>{{ t.risks }}</h2>
        <ul class="ruled">
          @for (risk of d.risks; track $index) {
            <li [class]="risk.hazard.severity === 'severe' ? 'tone-bad' : 'tone-watch'">
              <span>{{ actionText(risk.what) }}{{ risk.takenBack ? ', ' + t.takenBack : '' }}</span>
              <span>{{ why(risk.hazard) }}</span>
            </li>
          } @empty {
            <li class="dim">{{ t.noRisk }}</li>
          }
        </ul>
      </section>
      <section>
        <h2>{{ t.whatYouDid }}</h2>
        <ol class="ruled">
          @for (happened of world().log; track $index; let i = $index) {
            <li class="line">
              <span class="dim">{{ minutes(happened.atMinutes) }}</span>
              <span>
                {{ actionText(happened) }}
                @if (lessons()[i]; as lesson) {
                  <span class="dim lesson">{{ movedText(lesson) }}</span>
                  @if (lesson.better; as better) {
                    <span class="lesson tone-watch">{{ betterText(better) }}</span>
                  }
                }
              </span>
              <span class="came">{{ came(happened) }}</span>
              @if (i > 0) {
                <button
                  type="button"
                  class="key"
                  [attr.aria-label]="t.playOn + ': ' + actionText(happened)"
                  (click)="playFrom.emit(i)"
                >
                  {{ t.playOn }}
                </button>
              }
            </li>
          }
        </ol>
      </section>
      <section>
        <h2>{{ t.toolSteps }}</h2>
        <ol class="ruled">
          @for (happened of end()!.tool.log; track $index) {
            <li class="line">
              <span class="dim">{{ minutes(happened.atMinutes) }}</span>
              <span>{{ actionText(happened) }}</span>
              <span class="came">{{ came(happened) }}</span>
            </li>
          }
        </ol>
      </section>
    } @else {
      <p role="status" class="dim">{{ t.working }}</p>
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 18px 28px;
      align-content: start;
      padding: 14px 24px;
    }
    h1 {
      font-size: var(--text-xl);
    }
    .truth {
      font-size: var(--text-l);
      font-weight: 700;
    }
    .keys {
      display: flex;
      gap: 8px;
      margin-top: 10px;
    }
    li {
      display: grid;
      padding: 6px 0;
      line-height: 1.2;
    }
    .line {
      grid-template-columns: 34px minmax(0, 1fr) minmax(0, 170px) auto;
      align-items: center;
      gap: 0 10px;
    }
    .came {
      text-align: right;
      font-weight: 600;
    }
    .lesson {
      display: block;
      font-size: var(--text-xs);
    }
    .skill {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .chart {
      height: 300px;
    }
    @include media.phone {
      :host {
        grid-template-columns: minmax(0, 1fr);
        padding: 10px 12px;
      }
      .line {
        grid-template-columns: 30px minmax(0, 1fr) auto;
      }
      .line .key {
        grid-column: 2 / -1;
        justify-self: start;
      }
    }
  `,
})
export class DebriefView {
  protected readonly t = T;

  readonly world = input.required<World>();
  /** Null while the tool still works the case. */
  readonly end = input.required<PracticeEnd | null>();
  /** The case is to be played again with so many of its actions as they were. */
  readonly playFrom = output<number>();

  protected readonly debrief = computed(() => this.end()?.debrief ?? null);
  protected readonly skillWords = SKILL_WORDS;
  protected readonly lessons = computed(() => this.end()?.course.lessons ?? []);
  protected readonly draw = computed(() => {
    const points = this.end()!.course.points;
    return (colours: ChartColours) => beliefChart(points, colours);
  });
  protected readonly summary = computed(() =>
    T.beliefSummary({ list: beliefSummary(this.end()!.course.points) }),
  );
  /** The moment from which it could not be passed, where that was before its end. */
  protected readonly lost = computed(() => {
    const lost = this.end()?.course.lost ?? null;
    return (
      lost &&
      lost.atMinutes < this.world().minutes &&
      T.lost({ minute: this.minutes(lost.atMinutes), why: FAILING_WORDS[lost.failing] })
    );
  });
  protected readonly failingWords = FAILING_WORDS;
  protected readonly came = cameWords;
  protected readonly why = hazardWhy;
  protected readonly truth = computed(() =>
    (this.debrief()?.truth.holds ?? []).map((cause) => CAUSE_WORDS[cause]).join(', '),
  );
  /** The check that could have overturned the verdict. */
  protected readonly missing = computed(() => {
    const missing = this.debrief()?.missing ?? null;
    return missing && T.missing({ check: FINDING_NAMES[missing] });
  });
  protected readonly right = computed(() => rightWords(this.debrief()?.right ?? []));
  protected readonly nextCode = computed(() => {
    const read = readCaseCode(this.world().practice.code)!;
    return codeOf(read, read.number + 1);
  });

  protected actionText({ action }: Happened): string {
    return practiceActionWords(action, this.world().practice);
  }

  protected movedText({ moved: { cause, before, after } }: Lesson): string {
    return T.moved({ cause: CAUSE_WORDS[cause], before: inHundred(before), after: inHundred(after) });
  }

  protected betterText({ check }: NonNullable<Lesson['better']>): string {
    return T.better({ check: FINDING_NAMES[check] });
  }

  protected minutes(value: number): string {
    return value.toFixed(0);
  }
}
