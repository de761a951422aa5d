import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { codeOf, codeOfCase, readCaseCode, RUNGS } from '@voltrek/core/practice';
import { RUNG_WORDS } from '@words/practice-words';
import { When } from '../shared/ui/when';
import { LADDER_PAGE as T } from '@words/screens/practice';
import { PracticeRecord } from './practice-record';

/** The rungs of practice: what each trains, how it stands on this device, and its next case. */
@Component({
  selector: 'vt-ladder-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, When],
  host: { class: 'page' },
  template: `
    <header>
      <h1>{{ t.practice }}</h1>
      <span class="dim">{{ t.nobodyIsHurt }}</span>
      <a class="key strong" routerLink="/practice/drills">{{ t.drills }}</a>
      <a class="key strong" routerLink="/practice/exam">{{ t.exam }}</a>
      <a class="key strong" routerLink="/practice/write">{{ t.writeACase }}</a>
    </header>
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
    <ol class="ruled" [attr.aria-label]="t.ladder">
      @for (rung of rungs(); track rung.id; let i = $index) {
        <li>
          <span class="at">{{ i + 1 }}</span>
          <div>
            <h2>{{ rung.words.name }}</h2>
            <p class="dim">{{ rung.words.trains }}</p>
          </div>
          <span class="stands dim">
            {{ rung.stands }}
            @if (rung.isDue) {
              <strong class="tone-watch">{{ t.due }}</strong>
            } @else if (rung.dueAt) {
              {{ t.again }} {{ rung.dueAt | when: 'day' }}
            }
          </span>
          <a
            class="key strong"
            [routerLink]="['/practice', rung.code]"
            [attr.aria-label]="rung.words.name + ', ' + rung.go"
            >{{ rung.go }}</a
          >
        </li>
      }
    </ol>
  `,
  styles: `
    @use 'media';

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
      grid-template-columns: 32px minmax(0, 1fr) 180px 132px;
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
    }
  `,
})
export class LadderPage {
  protected readonly t = T;

  private readonly record = inject(PracticeRecord);
  private readonly router = inject(Router);
  protected readonly isNone = signal(false);
  private readonly now = Date.now();

  protected readonly rungs = computed(() =>
    RUNGS.map(({ id }) => {
      const { next, passed, lastPassed, card } = this.record.progressOf(id);
      const dueAt = card ? new Date(card.due) : null;
      const code = codeOfCase(id, next);
      const isUnderWay = this.record.actions(code).length > 0;
      const stands =
        lastPassed === null ? T.notTried : lastPassed ? T.passed({ count: passed }) : T.failedLast;
      const isDue = dueAt !== null && dueAt.getTime() <= this.now;
      return {
        id,
        words: RUNG_WORDS[id],
        code,
        stands,
        dueAt,
        isDue,
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
