import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { JobSummary } from '@voltrek/contracts';
import { VERDICTS } from '@voltrek/core/verdict';
import { Store } from '@ngrx/store';
import { LogActions, logFeature, type LogQuery } from '../shared/data/log';
import { volts } from '@words/figures';
import { VERDICT_WORDS } from '@words/verdict-words';
import { verdictTitle } from '@words/verdict-title';
import { Choices } from '../shared/ui/choices';
import { When } from '../shared/ui/when';
import { LOG_PAGE as T } from '@words/screens/log';

/** Closed jobs, newest first, found by what they say or how they ended. */
@Component({
  selector: 'vt-log-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, RouterLink, When],
  host: { class: 'page' },
  template: `
    <header>
      <h1>{{ t.log }}</h1>
      <span class="dim">{{ t.closedJobsNewestFirst }}</span>
      <a class="key" routerLink="/follow-ups">{{ t.followUps }}</a>
      <a class="key" routerLink="/files">{{ t.files }}</a>
    </header>
    <div class="ask">
      <input
        type="search"
        class="field"
        [attr.aria-label]="t.searchTheLog"
        [placeholder]="t.machinePlaceCallNumberOrPlate"
        [value]="query().text"
        #textInput
        (input)="ask({ text: textInput.value, pages: [''] })"
      />
      <div class="keys" role="radiogroup" [attr.aria-label]="t.verdict">
        <button
          type="button"
          class="key"
          role="radio"
          [attr.aria-checked]="query().verdict === null"
          (click)="ask({ verdict: null, pages: [''] })"
        >
          {{ t.all }}
        </button>
        @for (v of verdicts; track v) {
          <button
            type="button"
            class="key"
            role="radio"
            [attr.aria-checked]="query().verdict === v"
            (click)="ask({ verdict: v, pages: [''] })"
          >
            {{ words[v].name }}
          </button>
        }
      </div>
    </div>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <ul class="ruled">
      @for (job of jobs(); track job.id) {
        <li>
          <a [routerLink]="['/job', job.id, 'verdict']">
            <span class="number">{{ job.callNumber }}</span>
            <span class="when">{{ job.closedAt | when: 'dateTime' }}</span>
            <span
              ><strong>{{ job.title }}</strong> <span class="dim">{{ job.placeName }}</span></span
            >
            <span class="volts">{{ job.lowestRestVolts === null ? '' : volts(job.lowestRestVolts) }}</span>
            <span class="verdict">{{ titleOf(job) }}</span>
          </a>
        </li>
      } @empty {
        @if (status() === 'ready') {
          <li class="dim none">{{ t.noClosedJobMatches }}</li>
        }
      }
    </ul>
    @if (next() !== null || query().pages.length > 1) {
      <div class="keys pages">
        <button type="button" class="key" [disabled]="query().pages.length === 1" (click)="newer()">
          {{ t.newer }}
        </button>
        <button type="button" class="key" [disabled]="next() === null" (click)="older()">
          {{ t.older }}
        </button>
        <span class="dim" role="status">{{ t.page(query().pages.length) }}</span>
      </div>
    }
  `,
  styles: `
    @use 'media';

    .ask {
      display: grid;
      gap: 12px;
      margin-bottom: 12px;
    }
    li a {
      display: grid;
      grid-template-columns: 56px 170px 1fr 90px 260px;
      gap: 16px;
      align-items: center;
      min-height: 48px;
      padding: 4px 0;
      color: inherit;
      text-decoration: none;
    }
    a:hover {
      background: var(--sheet);
    }
    .number {
      font-weight: 700;
      text-align: right;
    }
    .volts {
      text-align: right;
    }
    .verdict {
      font-weight: 600;
    }
    .pages {
      align-items: center;
      margin-top: 14px;
    }
    .none {
      padding: 20px 0;
    }
    @include media.phone {
      li a {
        grid-template-columns: 44px minmax(0, 1fr);
        gap: 2px 10px;
      }
      li a > :not(.number) {
        grid-column: 2;
      }
      .volts {
        display: none;
      }
    }
  `,
})
export class LogPage {
  protected readonly t = T;

  private readonly store = inject(Store);

  protected readonly query = this.store.selectSignal(logFeature.selectQuery);
  protected readonly jobs = this.store.selectSignal(logFeature.selectJobs);
  protected readonly next = this.store.selectSignal(logFeature.selectNext);
  protected readonly status = this.store.selectSignal(logFeature.selectStatus);
  protected readonly problem = this.store.selectSignal(logFeature.selectProblem);
  protected readonly verdicts = VERDICTS;
  protected readonly words = VERDICT_WORDS;
  protected readonly volts = volts;

  constructor() {
    this.ask({});
  }

  protected ask(change: Partial<LogQuery>): void {
    this.store.dispatch(LogActions.asked({ query: { ...this.query(), ...change } }));
  }

  protected older(): void {
    const next = this.next();
    if (next !== null) this.ask({ pages: [...this.query().pages, next] });
  }

  protected newer(): void {
    this.ask({ pages: this.query().pages.slice(0, -1) });
  }

  protected titleOf({ verdict, suspect }: Pick<JobSummary, 'verdict' | 'suspect'>): string {
    return verdict ? verdictTitle(verdict, suspect) : '';
  }
}
