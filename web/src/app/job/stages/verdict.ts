import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Router } from '@angular/router';
import { FOLLOW_UP_WORDS } from '@voltrek/contracts';
import { anyClampOn, type Evidence, type FollowUp, type VerdictRecord } from '@voltrek/core';
import { Store } from '@ngrx/store';
import { addDays } from 'date-fns';
import {
  CERTAINTY_WORDS,
  CHECK_WORDS,
  EVIDENCE_WORDS,
  READING_WORDS,
  STOP_WORDS,
  SUSPECT_WORDS,
  VERDICT_WORDS,
} from '../../shared/words/words';
import { NextAction } from '../next-action';
import { selectJudgement, type Work } from '../state/job-selectors';
import { Reporter } from '../state/reporter';

/** Weight at which the ledger's bar is full. */
const FULL_WEIGHT = 7;

/** The ledger of evidence, the verdict and what happens next. */
@Component({
  selector: 'vt-verdict',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, NextAction],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">Verdict</h1>
        <span class="dim">{{ given() ? 'as given' : 'over what is recorded so far' }}</span>
      </header>
      @if (record(); as v) {
        <div class="card" [class.danger]="v.verdict === 'unsafe' || v.verdict === 'replace-now'">
          <h2>{{ words[v.verdict].name }}{{ v.suspect ? ': ' + suspectWords[v.suspect] : '' }}</h2>
          <p>
            {{ words[v.verdict].means }} <strong>{{ certaintyWords[v.certainty] }}.</strong>
          </p>
          @if (v.decidingReading; as reading) {
            <p class="dim">What could change it: {{ readingWords[reading].name.toLowerCase() }}.</p>
          }
        </div>
        <div class="ledger">
          <div>
            <h3>For</h3>
            <ul class="ruled">
              @for (e of v.evidenceFor; track $index) {
                <li>
                  <span>{{ say(e) }}</span
                  ><span class="weight" aria-hidden="true"><i [style.width.%]="share(e)"></i></span>
                </li>
              } @empty {
                <li class="dim">Nothing recorded yet.</li>
              }
            </ul>
          </div>
          <div>
            <h3>Against, or pointing elsewhere</h3>
            <ul class="ruled">
              @for (e of v.evidenceAgainst; track $index) {
                <li>
                  <span>{{ say(e) }}</span
                  ><span class="weight against" aria-hidden="true"><i [style.width.%]="share(e)"></i></span>
                </li>
              } @empty {
                <li class="dim">Nothing.</li>
              }
            </ul>
          </div>
        </div>
        <div>
          <h3>Next</h3>
          <ul class="ruled next-list">
            @for (f of v.followUps; track f.kind) {
              <li>
                <span>{{ followUpWords[f.kind] }}</span
                ><strong>{{ f.days === 0 ? 'now' : (dateOf(f) | date: 'EEE d MMM y') }}</strong>
              </li>
            }
          </ul>
        </div>
      }
    </section>
    @if (work().job.closedAt; as closedAt) {
      <vt-next-action
        [label]="'Closed ' + (closedAt | date: 'd MMM, HH:mm') + '. Back to the board'"
        (go)="toBoard()"
      />
    } @else if (clampsOn()) {
      <vt-next-action label="Clamps are on. Clear down first" [disabled]="true" />
    } @else if (given()) {
      <vt-next-action label="Close the job" (go)="close()" />
    } @else {
      <vt-next-action
        [label]="'Give verdict: ' + (record() ? words[record()!.verdict].name : '')"
        (go)="give()"
      />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .card {
      padding: 16px 22px;
      border: 2px solid var(--ink);
      border-radius: 6px;
      background: var(--sheet);
    }
    .card.danger {
      border: 5px solid var(--bad);
    }
    h2 {
      font-size: 33px;
      line-height: 1.1;
    }
    .card p {
      margin-top: 6px;
      font-size: 18px;
    }
    .ledger {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 24px;
    }
    li {
      display: flex;
      justify-content: space-between;
      align-items: center;
      gap: 12px;
      padding: 7px 0;
      font-size: 16px;
    }
    .weight {
      flex: none;
      width: 56px;
      height: 8px;
      background: var(--body);
    }
    .weight i {
      display: block;
      height: 100%;
      background: var(--ok);
    }
    .weight.against i {
      background: var(--watch);
    }
    @media (max-width: 720px) {
      .ledger {
        grid-template-columns: 1fr;
        gap: 12px;
      }
      h2 {
        font-size: 26px;
      }
    }
  `,
})
export class Verdict {
  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  private readonly router = inject(Router);
  private readonly judgement = inject(Store).selectSignal(selectJudgement);

  protected readonly words = VERDICT_WORDS;
  protected readonly suspectWords = SUSPECT_WORDS;
  protected readonly certaintyWords = CERTAINTY_WORDS;
  protected readonly readingWords = READING_WORDS;
  protected readonly followUpWords = FOLLOW_UP_WORDS;

  protected readonly given = computed(() => this.work().job.verdict);
  protected readonly record = computed<VerdictRecord | null>(() => this.given() ?? this.judgement());
  protected readonly clampsOn = computed(() => anyClampOn(this.work().job.hookup));

  protected say({ code, value, subject }: Evidence): string {
    const named =
      code === 'check-fault'
        ? `: ${CHECK_WORDS[subject as keyof typeof CHECK_WORDS].ask.toLowerCase()}`
        : code === 'stop-stands'
          ? `: ${STOP_WORDS[subject as keyof typeof STOP_WORDS].sign.toLowerCase()}`
          : '';
    const figure = value === null ? '' : code === 'earlier-flat' ? `: ${value}` : `, ${value.toFixed(2)} V`;
    return `${EVIDENCE_WORDS[code]}${named}${figure}`;
  }

  protected share(e: Evidence): number {
    return Math.min(100, (e.weight / FULL_WEIGHT) * 100);
  }

  protected dateOf(followUp: FollowUp): Date {
    return addDays(new Date(this.work().job.closedAt ?? Date.now()), followUp.days);
  }

  protected give(): void {
    const record = this.record();
    if (record) this.reporter.report('verdict.given', record);
  }

  protected close(): void {
    this.reporter.report('job.closed', { note: '' });
  }

  protected toBoard(): void {
    void this.router.navigate(['/board']);
  }
}
