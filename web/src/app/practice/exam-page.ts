import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Exam, NewExam } from '@voltrek/contracts';
import { EXAM_MINUTES, EXAM_NUMBER_MOST, examCases, type ExamRun, RUNG_IDS } from '@voltrek/core/practice';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { Store } from '@ngrx/store';
import { map, of } from 'rxjs';
import { nameOf } from '@words/figures';
import { RUNG_WORDS } from '@words/practice-words';
import { When } from '../shared/ui/when';
import { EXAM_PAGE as T } from '@words/screens/exam';
import { ticker } from '../shared/job/ticker';
import { Api } from '../shared/data/api';
import { loaded } from '../shared/data/loaded';
import { problemText } from '../shared/data/problem';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { Errands } from '../shared/sync/errands';
import { Chart } from '../shared/ui/chart';
import type { ChartColours } from '../shared/ui/colours';
import { ConfirmPrompt } from '../shared/ui/confirm-prompt';
import { savePdf } from '../shared/ui/save-pdf';
import { examDocument, resultWords } from './exam-pdf';
import { ExamRecord, type ExamUnderWay } from './exam-record';
import { PracticeRecord } from './practice-record';
import { skillsChart, skillsOf } from './skills-chart';

/** The server works every case of an exam once more: it is given this long before the exam waits on this device, ms. */
const ANSWER_MS = 45_000;
const SECOND_MS = 1_000;

/** Exams: the one under way on this device, those that were taken, and how each skill sits in whom. */
@Component({
  selector: 'vt-exam-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart, RouterLink, When],
  host: { class: 'page' },
  template: `
    <header>
      <h1>{{ t.exam }}</h1>
      <a class="key" routerLink="/practice">{{ t.ladder }}</a>
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (note(); as text) {
      <p role="status">{{ text }}</p>
    }
    @if (exam(); as e) {
      <section aria-labelledby="under-way">
        <div class="line">
          <h2 id="under-way">{{ t.underWay({ number: e.number, name: nameOf(e.by) }) }}</h2>
          <strong>{{ t.left({ minutes: minutesLeft() }) }}</strong>
          <button type="button" class="key strong" [disabled]="isMarking()" (click)="askEnd(e)">
            {{ t.end }}
          </button>
        </div>
        <ol class="ruled">
          @for (one of cases(); track one.place) {
            <li>
              <strong>{{ t.caseOf({ place: one.place }) }}</strong>
              <span class="dim">{{ one.stands }}</span>
              <a
                class="key"
                [routerLink]="['/practice/exam', one.place]"
                [attr.aria-label]="t.openCase({ place: one.place })"
                >{{ t.open }}</a
              >
            </li>
          }
        </ol>
      </section>
    } @else {
      <p>{{ t.what({ cases: casesOfAnExam, minutes: minutesOfAnExam }) }}</p>
      <form class="line" (submit)="$event.preventDefault(); begin()">
        <label
          ><span class="dim">{{ t.number }}</span
          ><input
            class="field"
            inputmode="numeric"
            maxlength="4"
            [value]="numberText()"
            [attr.aria-invalid]="number() === null"
            #typed
            (input)="numberText.set(typed.value)"
        /></label>
        <button type="submit" class="key strong" [disabled]="number() === null || crewId() === ''">
          {{ t.begin }}
        </button>
        <span class="dim">{{ crewId() === '' ? t.sayWho : t.numberRange({ most: mostNumber }) }}</span>
      </form>
    }
    <h2>{{ t.taken }}</h2>
    <ul class="ruled">
      @for (one of taken(); track one.id) {
        <li class="taken">
          <strong>{{ nameOf(one.crewId) }}</strong>
          <span class="dim">{{ t.line({ number: one.number, day: one.endedAt | when: 'dayTime' }) }}</span>
          <span [class]="one.passed ? 'tone-good' : 'tone-bad'">{{ resultOf(one) }}</span>
          <span class="dim">{{
            one.signedBy === null ? t.notSigned : t.signedBy({ name: nameOf(one.signedBy) })
          }}</span>
          <span class="keys">
            @if (maySign(one)) {
              <button
                type="button"
                class="key"
                [attr.aria-label]="t.signNamed({ number: one.number, name: nameOf(one.crewId) })"
                (click)="sign(one)"
              >
                {{ t.sign }}
              </button>
            }
            <button
              type="button"
              class="key"
              [attr.aria-label]="t.pdfNamed({ number: one.number, name: nameOf(one.crewId) })"
              (click)="pdf(one)"
            >
              {{ t.pdf }}
            </button>
            <a
              class="key"
              [href]="'/api/exams/' + one.id"
              download
              [attr.aria-label]="t.jsonNamed({ number: one.number, name: nameOf(one.crewId) })"
              >{{ t.json }}</a
            >
          </span>
        </li>
      } @empty {
        <li class="dim">{{ t.none }}</li>
      }
    </ul>
    @if (taken().length > 0) {
      <h2>{{ t.skills }}</h2>
      <p>{{ skillsSummary() }}</p>
      <div class="chart" [style.height.px]="chartHeight">
        <vt-chart [draw]="drawSkills()" [summary]="skillsSummary()" />
      </div>
    }
  `,
  styles: `
    @use 'media';

    .line {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 10px 16px;
      margin: 10px 0;
    }
    .line label {
      display: grid;
    }
    .field {
      width: 110px;
    }
    li {
      display: grid;
      grid-template-columns: 140px 1fr auto;
      align-items: center;
      gap: 4px 16px;
      padding: 8px 0;
    }
    .taken {
      grid-template-columns: 140px 200px 1fr 180px auto;
    }
    li .dim {
      margin: 0;
    }
    h2 {
      margin-top: 22px;
    }
    .line h2 {
      margin: 0;
    }
    .chart {
      max-width: 760px;
      margin-bottom: 20px;
    }
    @include media.phone {
      .taken {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class ExamPage {
  protected readonly t = T;
  protected readonly resultOf = resultWords;
  protected readonly casesOfAnExam = examCases(1).length;
  protected readonly minutesOfAnExam = EXAM_MINUTES;
  protected readonly mostNumber = EXAM_NUMBER_MOST;

  private readonly api = inject(Api);
  private readonly errands = inject(Errands);
  private readonly record = inject(ExamRecord);
  private readonly practice = inject(PracticeRecord);
  private readonly confirm = inject(ConfirmPrompt);
  private readonly store = inject(Store);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  protected readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly isLead = this.store.selectSignal(sessionFeature.selectIsLead);
  private readonly now = ticker(SECOND_MS);

  protected readonly exam = this.record.underWay;
  private readonly exams = loaded(
    () => 'exams',
    () => this.api.exams(),
    [],
  );
  protected readonly taken = this.exams.value;
  protected readonly problem = this.exams.problem;
  protected readonly note = signal<string | null>(null);
  protected readonly isMarking = signal(false);
  protected readonly numberText = signal(String(1 + Math.floor(Math.random() * EXAM_NUMBER_MOST)));
  protected readonly number = computed(() => {
    const number = /^\d{1,4}$/.test(this.numberText()) ? Number(this.numberText()) : 0;
    return number >= 1 && number <= EXAM_NUMBER_MOST ? number : null;
  });
  private readonly msLeft = computed(() => {
    const exam = this.exam();
    if (!exam) return 0;
    return Math.min(EXAM_MINUTES * MINUTE_MS, Math.max(0, ExamRecord.endsAtMs(exam) - this.now()));
  });
  protected readonly minutesLeft = computed(() => Math.ceil(this.msLeft() / MINUTE_MS));
  protected readonly cases = computed(() => {
    const exam = this.exam();
    if (!exam) return [];
    return ExamRecord.codesOf(exam).map((code, i) => {
      const actions = this.practice.actions(ExamRecord.keyOf(exam, code));
      const isGiven = actions.some(({ kind }) => kind === 'verdict');
      return {
        place: i + 1,
        isGiven,
        stands: isGiven ? T.given : actions.length > 0 ? T.begun : T.notBegun,
      };
    });
  });

  private readonly skills = computed(() => skillsOf(this.taken()));
  protected readonly chartHeight = 50 + 38 * RUNG_IDS.length;
  protected readonly skillsSummary = computed(() => {
    const weakest = this.skills().weakest.map((id) => RUNG_WORDS[id].name);
    return T.skillsSummary({ weakest: weakest.join(', ') });
  });
  protected readonly drawSkills = computed(() => {
    const skills = this.skills();
    const names = skills.people.map((id) => this.nameOf(id));
    const rungs = RUNG_IDS.map((id) => RUNG_WORDS[id].name);
    return (colours: ChartColours) => skillsChart(skills, names, rungs, colours);
  });

  constructor() {
    // Time that is over ends it, whatever is open.
    effect(() => {
      const exam = this.exam();
      if (exam && this.msLeft() === 0) untracked(() => void this.end(exam));
    });
  }

  protected nameOf(crewId: string): string {
    return nameOf(this.crew(), crewId);
  }

  protected maySign({ signedBy, crewId }: Exam): boolean {
    return this.isLead() && signedBy === null && crewId !== this.crewId();
  }

  protected begin(): void {
    const number = this.number();
    if (number === null || this.crewId() === '') return;
    this.note.set(null);
    this.record.begin(number, this.crewId());
  }

  protected async askEnd(exam: ExamUnderWay): Promise<void> {
    const open = this.cases().filter(({ isGiven }) => !isGiven).length;
    if (open > 0) {
      const asked = { title: T.endTitle, text: T.endText({ open }), yes: T.end, no: T.goOn };
      if (!(await this.confirm.ask(asked))) return;
    }
    await this.end(exam);
  }

  /** Sends in what was done: the house works out what it was worth. */
  private async end(exam: ExamUnderWay): Promise<void> {
    if (this.isMarking()) return;
    this.isMarking.set(true);
    this.exams.tell(null);
    this.note.set(T.marking);
    const endedAt = new Date(Math.min(Date.now(), ExamRecord.endsAtMs(exam))).toISOString();
    try {
      const runs = ExamRecord.codesOf(exam).map(
        (code): ExamRun => ({ code, actions: this.practice.actions(ExamRecord.keyOf(exam, code)) }),
      );
      const { id, number, by, startedAt } = exam;
      await this.send({ id, by, number, startedAt, endedAt, runs });
      this.record.end();
    } catch (error) {
      this.exams.tell(problemText(error));
      this.note.set(null);
    } finally {
      this.isMarking.set(false);
    }
  }

  private async send(sent: NewExam): Promise<void> {
    const { id, endedAt: at } = sent;
    const marked = await this.errands.offer({ id, at, why: null, kind: 'exam', exam: sent }, ANSWER_MS);
    if (marked) this.exams.change(of([marked, ...this.taken()]));
    this.note.set(marked ? null : T.waits);
  }

  protected sign({ id }: Exam): void {
    this.exams.tell(null);
    const signed = this.api.signExam(id, this.crewId());
    this.exams.change(signed.pipe(map((exam) => this.taken().map((one) => (one.id === id ? exam : one)))));
  }

  protected pdf(exam: Exam): Promise<void> {
    const signer = exam.signedBy === null ? null : this.nameOf(exam.signedBy);
    return savePdf(examDocument(exam, this.nameOf(exam.crewId), signer), `exam-${exam.number}.pdf`);
  }
}
