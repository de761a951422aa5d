import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { JobFilter, JobSummary } from '@voltrek/contracts';
import { VERDICTS } from '@voltrek/core/verdict';
import { Api } from '../shared/data/api';
import { loaded } from '../shared/data/loaded';
import { type LogQuery, LastAsked } from '../shared/data/last-asked';
import { FilterLine, withPart } from '../shared/ui/filter-line';
import { volts } from '@words/figures';
import { VERDICT_WORDS } from '@words/verdict-words';
import { verdictTitle } from '@words/verdict-title';
import { Choices } from '../shared/ui/choices';
import { RecordList, RecordRow } from '../shared/ui/record-list';
import { When } from '../shared/ui/when';
import { LOG_PAGE as T } from '@words/screens/log';

const LOG_PAGE_SIZE = 25;

/** Closed jobs, newest first, found by what they say or how they ended. */
@Component({
  selector: 'vt-log-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, FilterLine, RecordList, RecordRow, RouterLink, When],
  host: { class: 'page' },
  template: `
    <header>
      <h1>{{ t.log }}</h1>
      <span class="dim">{{ t.subtitle }}</span>
      <a class="key" routerLink="/figures">{{ t.figures }}</a>
      <a class="key" routerLink="/shift">{{ t.shift }}</a>
      <a class="key" routerLink="/follow-ups">{{ t.followUps }}</a>
      <a class="key" routerLink="/files">{{ t.files }}</a>
    </header>
    <div class="ask">
      <input
        type="search"
        class="field"
        [attr.aria-label]="t.searchTheLog"
        [placeholder]="t.searchHint"
        [value]="query().text"
        #textInput
        (input)="ask({ text: textInput.value, pages: [''] })"
      />
      <div class="keys" role="radiogroup" [attr.aria-label]="t.verdict">
        <button
          type="button"
          class="key"
          role="radio"
          [attr.aria-checked]="query().filter.verdict === undefined"
          (click)="narrow({ verdict: undefined })"
        >
          {{ t.all }}
        </button>
        @for (v of verdicts; track v) {
          <button
            type="button"
            class="key"
            role="radio"
            [attr.aria-checked]="query().filter.verdict === v"
            (click)="narrow({ verdict: v })"
          >
            {{ words[v].name }}
          </button>
        }
      </div>
      <vt-filter-line [filter]="query().filter" [leaveOut]="shownAsKeys" (narrowed)="narrow($event)" />
    </div>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <vt-record-list [link]="linkOf" [none]="isReady() ? t.empty : null">
      <ng-template [vtRow]="jobs()" let-job>
        <span class="number">{{ job.callNumber }}</span>
        <span>{{ job.closedAt | when: 'dateTime' }}</span>
        <span
          ><strong>{{ job.title }}</strong> <span class="dim">{{ job.placeName }}</span></span
        >
        <span class="volts">{{ job.lowestRestVolts === null ? '' : volts(job.lowestRestVolts) }}</span>
        <span class="verdict">{{ titleOf(job) }}</span>
      </ng-template>
    </vt-record-list>
    @if (next() !== null || query().pages.length > 1) {
      <div class="keys pages">
        <button type="button" class="key" [disabled]="query().pages.length === 1" (click)="newer()">
          {{ t.newer }}
        </button>
        <button type="button" class="key" [disabled]="next() === null" (click)="older()">
          {{ t.older }}
        </button>
        <span class="dim" role="status">{{ t.page({ page: query().pages.length }) }}</span>
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
    vt-record-list {
      --columns: 56px 170px 1fr 90px 260px;
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
    @include media.phone {
      vt-record-list {
        --columns: 44px minmax(0, 1fr);
      }
      span:not(.number, .dim) {
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

  private readonly api = inject(Api);
  protected readonly query = inject(LastAsked).log;
  private readonly page = loaded(
    () => this.query(),
    ({ text, filter, pages }) => this.api.log(text, filter, pages.at(-1) ?? '', LOG_PAGE_SIZE),
    { jobs: [], next: null },
  );
  protected readonly jobs = computed(() => this.page.value().jobs);
  protected readonly next = computed(() => this.page.value().next);
  protected readonly isReady = this.page.isReady;
  protected readonly problem = this.page.problem;
  protected readonly verdicts = VERDICTS;
  /** The parts of the filter that have keys of their own here. */
  protected readonly shownAsKeys = ['verdict'] as const;
  protected readonly words = VERDICT_WORDS;
  protected readonly volts = volts;

  protected ask(change: Partial<LogQuery>): void {
    this.query.update((query) => ({ ...query, ...change }));
  }

  protected narrow(change: Partial<JobFilter>): void {
    this.ask({ filter: withPart(this.query().filter, change), pages: [''] });
  }

  protected older(): void {
    const next = this.next();
    if (next !== null) this.ask({ pages: [...this.query().pages, next] });
  }

  protected newer(): void {
    this.ask({ pages: this.query().pages.slice(0, -1) });
  }

  protected readonly linkOf = ({ id }: JobSummary): readonly string[] => ['/job', id, 'verdict'];

  protected titleOf({ verdict, suspect }: Pick<JobSummary, 'verdict' | 'suspect'>): string {
    return verdict ? verdictTitle(verdict, suspect) : '';
  }
}
