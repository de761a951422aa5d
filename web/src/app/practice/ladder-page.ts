import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { codeOf, codeOfCase, readCaseCode, RUNGS } from '@voltrek/core/practice';
import { RUNG_WORDS, SKILL_WORDS } from '@words/practice-words';
import { Chart } from '../shared/ui/chart';
import type { ChartColours } from '../shared/ui/colours';
import { When } from '../shared/ui/when';
import { LADDER_PAGE as T } from '@words/screens/practice';
import { PracticeRecord } from './practice-record';
import { curveChart, skillCurve } from './skill-curve';

/** So many of the newest cases of a skill are shown. */
const DOTS_MOST = 10;

/** Practice: the case with most to teach, the rungs with their next cases, and how the skills stand on this device. */
@Component({
  selector: 'vt-ladder-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart, RouterLink, When],
  host: { class: 'page' },
  template: `
    <header>
      <h1>{{ t.practice }}</h1>
      <span class="dim">{{ t.nobodyIsHurt }}</span>
      <a class="key strong" routerLink="/practice/drills">{{ t.drills }}</a>
      <a class="key strong" routerLink="/practice/exam">{{ t.exam }}</a>
      <a class="key strong" routerLink="/practice/write">{{ t.writeACase }}</a>
    </header>
    <section class="now">
      <a class="key strong go" [routerLink]="['/practice', nowCode]">{{ t.practiseNow }}</a>
      <span class="dim">{{ t.mostToTeach }}</span>
    </section>
    <form class="open" (submit)="open($event, codeInput.value)">
      <label>
        <span class="dim">{{ t.caseCode }}</span>
        <input
          class="field"
          autocomplete="off"
          autocapitalize="none"
          #codeInput
          [attr.aria-invalid]="isNone()"
        />
      </label>
      <button type="submit" class="key strong">{{ t.openIt }}</button>
      @if (isNone()) {
        <span class="tone-bad" role="alert">{{ t.noSuchCase }}</span>
      }
    </form>
    <div class="both">
      <ol class="ruled" [attr.aria-label]="t.ladder">
        @for (rung of rungs(); track rung.id; let i = $index) {
          <li>
            <span class="at">{{ i + 1 }}</span>
            <div>
              <h2>{{ rung.words.name }}</h2>
              <p class="dim">{{ rung.words.trains }}</p>
            </div>
            <span class="stands dim">{{ rung.stands }}</span>
            <a
              class="key strong"
              [routerLink]="['/practice', rung.code]"
              [attr.aria-label]="rung.words.name + ', ' + rung.go"
              >{{ rung.go }}</a
            >
          </li>
        }
      </ol>
      <section class="skills">
        <h2>{{ t.skills }}</h2>
        @if (skills().length > 0) {
          <h3 class="dim">{{ t.over }}</h3>
          <div class="chart"><vt-chart [draw]="draw" [summary]="summary()" /></div>
          <ul class="ruled">
            @for (skill of skills(); track skill.id) {
              <li class="skill">
                <span>
                  {{ skillWords[skill.id] }}
                  <span class="dots dim" aria-hidden="true">{{ skill.dots }}</span>
                </span>
                <span>{{ t.shownOf({ good: skill.good, asked: skill.shown.length }) }}</span>
                <span class="dim">{{
                  skill.isDue ? t.dueNow : t.dueOn({ day: skill.dueAt! | when: 'day' })
                }}</span>
              </li>
            }
          </ul>
        } @else {
          <p class="dim">{{ t.noSkills }}</p>
        }
      </section>
    </div>
  `,
  styles: `
    @use 'media';

    :host {
      container: practice / inline-size;
    }
    .now {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px 16px;
      margin: 8px 0 4px;
    }
    .go {
      min-height: 64px;
      padding: 0 34px;
      font-size: var(--text-l);
      background: var(--lamp);
      color: var(--on-lamp);
    }
    .both {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 400px;
      gap: 18px 32px;
      align-items: start;
    }
    .chart {
      height: 180px;
    }
    li.skill {
      grid-template-columns: minmax(0, 1fr) 62px 96px;
    }
    .dots {
      display: block;
      font-size: var(--text-xs);
      letter-spacing: 2px;
    }
    .open {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 10px;
      margin: 8px 0 14px;
    }
    .open label {
      display: grid;
    }
    li {
      display: grid;
      grid-template-columns: 32px minmax(0, 1fr) 96px 132px;
      gap: 0 14px;
      align-items: center;
      padding: 8px 0;
    }
    .at {
      font-size: var(--text-l);
      font-weight: 700;
      text-align: center;
    }
    .stands {
      text-align: right;
      font-size: var(--text-xs);
    }
    @container practice (width < 1100px) {
      .both {
        grid-template-columns: minmax(0, 1fr);
      }
      .skills {
        order: -1;
      }
    }
    @include media.phone {
      li {
        grid-template-columns: 28px minmax(0, 1fr);
      }
      .stands {
        grid-column: 2;
        text-align: left;
      }
      li .key {
        grid-column: 2;
        justify-self: start;
      }
      li.skill {
        grid-template-columns: minmax(0, 1fr) 60px 90px;
      }
    }
  `,
})
export class LadderPage {
  protected readonly t = T;

  private readonly record = inject(PracticeRecord);
  private readonly router = inject(Router);
  protected readonly isNone = signal(false);
  private readonly now = new Date();
  private readonly next = this.record.next(this.now);
  protected readonly nowCode = codeOfCase(this.next.rung, this.next.number);
  protected readonly skillWords = SKILL_WORDS;
  /** The skills that some case asked for, the least sure first. */
  protected readonly skills = computed(() =>
    this.record
      .skills(this.now)
      .filter(({ shown }) => shown.length > 0)
      .sort((a, b) => a.recall - b.recall)
      .map((skill) => ({
        ...skill,
        good: skill.shown.filter(Boolean).length,
        dots: skill.shown
          .slice(-DOTS_MOST)
          .map((good) => (good ? '●' : '○'))
          .join(''),
        isDue: skill.dueAt !== null && skill.dueAt <= this.now,
      })),
  );
  private readonly curve = computed(() => skillCurve(this.record.endedCases()));
  protected readonly draw = (colours: ChartColours) => curveChart(this.curve(), colours);
  protected readonly summary = computed(() => {
    const { share, asked } = this.curve().at(-1)!;
    return T.overSummary({ share: Math.round(100 * share), asked });
  });

  protected readonly rungs = computed(() =>
    RUNGS.map(({ id }) => {
      const { next, passed, lastPassed } = this.record.progressOf(id);
      const code = codeOfCase(id, next);
      const isUnderWay = this.record.actions(code).length > 0;
      const stands =
        lastPassed === null ? T.notTried : lastPassed ? T.passed({ count: passed }) : T.failedLast;
      return {
        id,
        words: RUNG_WORDS[id],
        code,
        stands,
        go: isUnderWay ? T.goOn : T.nextCase,
      };
    }),
  );

  protected open(event: Event, typed: string): void {
    event.preventDefault();
    const read = readCaseCode(typed);
    this.isNone.set(read === null);
    if (read) void this.router.navigate(['/practice', codeOf(read, read.number)]);
  }
}
