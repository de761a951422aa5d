import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { Store } from '@ngrx/store';
import { Router, RouterLink } from '@angular/router';
import { FOLLOW_UP_WORDS } from '@words/follow-up-words';
import { caseOfJob, mendedOfJob, currentVerdict } from '@voltrek/core/job';
import { caseFromLog } from '@voltrek/core/practice';
import type { FollowUp } from '@voltrek/core/verdict';
import { addDays } from 'date-fns';
import { GROUND_WORDS, CHECK_WORDS } from '@words/diagnosis-words';
import { inHundred, inSentence } from '@words/figures';
import { mendedProof, repairedPart } from '@words/repair-words';
import { batteryWord, STOP_WORDS } from '@words/words';
import { sureWords } from '@words/certainty-words';
import { VERDICT_WORDS } from '@words/verdict-words';
import { verdictTitle } from '@words/verdict-title';
import { PlanRunner } from '../../../workers/plan-runner';
import { workerAnswer } from '../../../workers/worker-answer';
import { NextAction, type StageAction } from '../../next-action';
import { selectDiagnosis, type Work } from '../../../shared/job/job-selectors';
import { nextActionAt } from '../../../shared/job/next-action-at';
import { Reporter } from '../../../shared/job/reporter';
import { goWords } from '@words/next-words';
import { offFirst } from '../../take-off';
import { ChangeBattery } from './change-battery';
import { ChargeAdvice } from './charge-advice';
import { JobSheetPart } from './job-sheet';
import { Ledger } from './ledger';
import { MaintainerPart } from './maintainer-part';
import { OwnerPagePart } from './owner-page';
import { RecheckPart } from './recheck';
import { WorkshopNote } from './workshop-note';
import { HOUR_MS } from '@voltrek/core/quantities';
import { Choices } from '../../../shared/ui/choices';
import { dateText } from '../../../shared/model/dates';
import { When } from '../../../shared/ui/when';
import { messagesOf } from '@words/messages-of';
import { VERDICT as T } from '@words/screens/job-stages-verdict';

/** From so long after closing on it may have been charged and have stood, ms. */
const RESTED_MS = 20 * HOUR_MS;

const PARTS = ['evidence', 'next', 'recheck', 'change', 'owner', 'sheet'] as const;
type Part = (typeof PARTS)[number];
const PART_WORDS: Record<Part, string> = messagesOf('verdictPart');

/** The verdict with its ledger, what happens next, and the sheet. */
@Component({
  selector: 'vt-verdict',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ChangeBattery,
    ChargeAdvice,
    Choices,
    JobSheetPart,
    Ledger,
    MaintainerPart,
    NextAction,
    OwnerPagePart,
    RecheckPart,
    RouterLink,
    When,
    WorkshopNote,
  ],
  providers: [PlanRunner],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">{{ t.verdict }}</h1>
        <span class="dim" role="status">{{
          work().job.recheck
            ? t.final
            : given()
              ? t.asGiven
              : isStale()
                ? t.working
                : t.soFar
        }}</span>
      </header>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      @if (record(); as v) {
        <div class="card" [class.danger]="v.verdict === 'unsafe' || v.verdict === 'replace-now'">
          <h2>{{ title(v.verdict, v.suspect, v.repaired) }}</h2>
          <p>
            {{ words[v.verdict].means }}
            <strong>{{ sureWords(v) }}.</strong>
          </p>
          @for (m of mended(); track $index) {
            <p>{{ t.mendedHere({ part: mendedPart(m), proof: proof(m) }) }}</p>
          }
          @if (v.ground; as ground) {
            <p class="dim">
              {{ groundWords[ground] }}
              @if (v.deciding; as d) {
                <span class="deciding">{{
                  t.wouldChangeIt({ chance: inHundred(d.chance), ask: inSentence(checkWords[d.check].ask), battery: d.battery === undefined ? '' : ' (' + batteryWord(d.battery) + ')' })
                }}</span>
              }
            </p>
          }
        </div>
        @if (next().act === 'close') {
          <p>{{ t.closedForGood }}</p>
        }
        <div class="keys parts" role="radiogroup" [attr.aria-label]="t.partsLabel">
          @for (p of parts(); track p) {
            <button
              type="button"
              class="key"
              role="radio"
              [attr.aria-checked]="part() === p"
              (click)="part.set(p)"
            >
              {{ partWords[p] }}
            </button>
          }
          <a class="key" [routerLink]="['/vehicle', work().vehicle.id]">{{ t.vehicle }}</a>
          @if (work().batteries[0]; as b) {
            <a class="key" [routerLink]="['/battery', b.id]">{{ t.battery }}</a>
          }
          @if (practiceCode(); as code) {
            <a class="key" [routerLink]="['/practice', code]">{{ t.practiseIt }}</a>
          }
        </div>
        @let shownPart = part();
        @switch (shownPart) {
          @case ('evidence') {
            @for (stop of activeStops(); track stop) {
              <p class="stop">
                <strong>{{ stopWords[stop].sign }}.</strong> {{ stopWords[stop].wrong }}
                {{ stopWords[stop].instead }}
              </p>
            }
            @if (activeStops().length === 0) {
              <vt-ledger [record]="v" />
            }
          }
          @case ('next') {
            <ul class="ruled follow" [attr.aria-label]="t.followUps">
              @for (f of v.followUps; track f.kind) {
                <li>
                  <span>{{ followUpWords[f.kind] }}</span
                  ><strong>{{ f.days === 0 ? t.now : (dateOf(f) | when: 'weekdayDate') }}</strong>
                </li>
              }
            </ul>
            @if ((v.suspect && v.verdict !== 'repaired') || v.verdict === 'unsafe') {
              <vt-workshop-note [work]="work()" [record]="v" />
            }
            @if (v.verdict === 'charge-first' || v.verdict === 'keep' || v.verdict === 'not-the-battery') {
              <vt-charge-advice [work]="work()" />
            }
            @if (v.verdict === 'replace-soon' || v.verdict === 'replace-now') {
              <p>
                {{ t.fitTitle }} <strong>{{ partWords.change }}</strong> {{ t.fitText }}
              </p>
              @if (v.verdict === 'replace-soon') {
                <vt-charge-advice [work]="work()" />
              }
            }
            @if (hasMaintainer()) {
              <vt-maintainer [work]="work()" />
            }
          }
          @case ('recheck') {
            <vt-recheck [work]="work()" />
          }
          @case ('change') {
            <vt-change-battery [work]="work()" />
          }
          @case ('owner') {
            <vt-owner-page [work]="work()" />
          }
          @case ('sheet') {
            <vt-job-sheet [work]="work()" [record]="v" />
          }
          @default never;
        }
      }
    </section>
    @let does = action();
    <vt-next-action
      [label]="does.label"
      [disabled]="does.waits ?? false"
      [holds]="next().act === 'close'"
      (go)="does.go()"
    />
  `,
  styles: `
    @use 'media';

    :host {
      display: contents;
    }
    .card {
      padding: 12px 20px;
      border: 2px solid var(--ink);
      border-radius: 6px;
      background: var(--sheet);
    }
    .card.danger {
      border: 5px solid var(--bad);
    }
    h2 {
      font-size: var(--text-xxl);
      line-height: 1.1;
    }
    .card p {
      margin-top: 4px;
      font-size: var(--text-s);
      line-height: 1.2;
    }
    .deciding::before {
      content: ' ';
    }
    .parts {
      gap: 6px;
    }
    .parts .key {
      padding: 4px 10px;
      font-size: var(--text-s);
    }
    a.key:first-of-type {
      margin-left: auto;
    }
    .follow li {
      display: flex;
      justify-content: space-between;
      gap: 12px;
      padding: 6px 0;
      font-size: var(--text-s);
    }
    @include media.narrow {
      h2 {
        font-size: var(--text-xl);
      }
      a.key:first-of-type {
        margin-left: 0;
      }
    }
  `,
})
export class Verdict {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  private readonly router = inject(Router);

  protected readonly words = VERDICT_WORDS;
  protected readonly inSentence = inSentence;
  protected readonly batteryWord = batteryWord;
  protected readonly title = verdictTitle;
  protected readonly stopWords = STOP_WORDS;
  protected readonly sureWords = sureWords;
  protected readonly groundWords = GROUND_WORDS;
  protected readonly checkWords = CHECK_WORDS;
  protected readonly partWords = PART_WORDS;
  protected readonly followUpWords = FOLLOW_UP_WORDS;
  protected readonly inHundred = inHundred;

  /** Opened a day after it was closed, it stands on the recheck that was promised. */
  private readonly first = computed((): Part => {
    const { closedAt } = this.work().job;
    const isRested = closedAt !== null && Date.now() - Date.parse(closedAt) > RESTED_MS;
    return isRested && this.isRecheckDue() ? 'recheck' : 'evidence';
  });
  protected readonly part = linkedSignal(() => this.first());
  protected readonly mended = computed(() => mendedOfJob(this.work().job));
  protected readonly mendedPart = repairedPart;
  protected readonly proof = mendedProof;
  protected readonly given = computed(() => currentVerdict(this.work().job));
  /** The stops behind an unsafe verdict: they are its evidence. */
  protected readonly activeStops = computed(() =>
    this.record()?.verdict === 'unsafe' ? this.work().situation.stops : [],
  );
  protected readonly next = nextActionAt('verdict');
  private readonly diagnosis = inject(Store).selectSignal(selectDiagnosis);
  /** A verdict that was given stands: nothing is asked any more. */
  private readonly question = computed(() => {
    const diagnosis = this.diagnosis();
    if (this.given() || !diagnosis) return null;
    const { job, situation, rules, earlierFlatCalls } = this.work();
    const facts = caseOfJob(job, situation.record.machine, earlierFlatCalls);
    return { ...diagnosis, facts, rules };
  });
  private readonly answer = workerAnswer(this.question, (worker, { findings, facts, tools, rules }) =>
    worker.conclude(findings, facts, tools, rules),
  );
  protected readonly record = computed(() => this.given() ?? this.answer.result());
  protected readonly isStale = computed(() => this.given() === null && this.answer.isStale());
  protected readonly problem = computed(() =>
    this.given() === null && this.answer.hasFailed() ? T.failed : null,
  );

  /** A battery may be changed on the spot, also where only its owner wants it; one that was changed stays on view. */
  protected readonly parts = computed(() => {
    const { closedAt, replaced } = this.work().job;
    const mayChange = replaced.length > 0 || (closedAt === null && this.record()?.verdict !== 'unsafe');
    return PARTS.filter((p) => (p !== 'change' || mayChange) && (p !== 'recheck' || this.isRecheckDue()));
  });

  /** The code of a case like this job, once it is closed. */
  protected readonly practiceCode = computed(() => caseFromLog(this.work().job, this.work().machine));
  protected readonly hasMaintainer = computed(
    () => this.record()?.followUps.some((f) => f.kind === 'maintainer') ?? false,
  );

  /** A closed job whose verdict promised a recheck that was not taken yet. */
  protected readonly isRecheckDue = computed(() => {
    const { closedAt, followedUp } = this.work().job;
    const isPromised = this.given()?.followUps.some((f) => f.kind === 'recheck') ?? false;
    return closedAt !== null && isPromised && !followedUp.includes('recheck');
  });

  protected dateOf(followUp: FollowUp): Date {
    return addDays(
      new Date(this.work().job.recheck?.at ?? this.work().job.closedAt ?? Date.now()),
      followUp.days,
    );
  }

  protected readonly action = computed((): StageAction => {
    const { closedAt } = this.work().job;
    const toBoard = (): void => void this.router.navigate(['/board']);
    if (closedAt !== null)
      return { label: T.closed + dateText(closedAt, 'dayTime') + T.backAfterClose, go: toBoard };
    const next = this.next();
    if (next.act === 'go')
      return {
        label: goWords(next.to, next.why),
        go: () => void this.router.navigate(['/job', this.work().job.id, next.to]),
      };
    const off = offFirst(next, this.work(), this.reporter);
    if (off) return off;
    if (next.act === 'close')
      return { label: T.closeAction, go: () => this.reporter.report('job.closed', { note: '' }) };
    if (next.act === 'to-board') return { label: T.backToBoard, go: toBoard };
    const record = this.record();
    if (record === null) return { label: T.weighing, waits: true, go: () => undefined };
    return {
      label: T.giveVerdict + VERDICT_WORDS[record.verdict].name,
      waits: this.isStale(),
      go: () => this.reporter.report('verdict.given', record),
    };
  });
}
