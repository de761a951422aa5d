import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { EXAM_PAGE as T } from '@words/screens/exam';
import { ticker } from '../shared/job/ticker';
import { CasePage } from './case-page';
import { ExamRecord } from './exam-record';

const SECOND_MS = 1_000;

/** A case of the exam that is under way: by its place, since its code would tell what it is about. */
@Component({
  selector: 'vt-exam-case',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CasePage, RouterLink],
  template: `
    @if (shown(); as s) {
      <vt-case-page [code]="s.code" [inExam]="s.inExam" />
    } @else {
      <div class="page">
        <h1>{{ t.exam }}</h1>
        <p>{{ isOver() ? t.timeIsOver : t.noneUnderWay }}</p>
        <a class="key" routerLink="/practice/exam">{{ t.exam }}</a>
      </div>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
})
export class ExamCase {
  protected readonly t = T;

  /** In the address, from 1. */
  readonly place = input.required<string>();
  private readonly exam = inject(ExamRecord).underWay;

  private readonly now = ticker(SECOND_MS);
  protected readonly isOver = computed(() => {
    const exam = this.exam();
    return exam !== null && this.now() >= ExamRecord.endsAtMs(exam);
  });
  protected readonly shown = computed(() => {
    const [exam, place] = [this.exam(), Number(this.place())];
    const code = exam && ExamRecord.codesOf(exam)[place - 1];
    return exam && code && !this.isOver()
      ? { code, inExam: { place, key: ExamRecord.keyOf(exam, code) } }
      : null;
  });
}
