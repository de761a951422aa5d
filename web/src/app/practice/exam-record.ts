import { Injectable, signal } from '@angular/core';
import { EXAM_MINUTES, examCases } from '@voltrek/core/practice';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { keepText, keptValue } from '../shared/data/kept';

/** An exam under way on this device. */
export interface ExamUnderWay {
  readonly id: string;
  readonly number: number;
  readonly by: string;
  readonly startedAt: string;
}

const KEY = 'voltrek.practice.exam';

/** The one exam that is under way on this device: kept through a reload, and its clock goes on. */
@Injectable({ providedIn: 'root' })
export class ExamRecord {
  private readonly now = signal(keptValue<ExamUnderWay | null>(KEY, null));
  readonly underWay = this.now.asReadonly();

  begin(number: number, by: string): void {
    this.set({ id: crypto.randomUUID(), number, by, startedAt: new Date().toISOString() });
  }

  end(): void {
    this.set(null);
  }

  /** Under what the run of one of its cases is kept: apart from practice, which may have had the same case. */
  static keyOf({ id }: ExamUnderWay, code: string): string {
    return `${id}.${code}`;
  }

  static codesOf = ({ number }: ExamUnderWay): readonly string[] => examCases(number);

  static endsAtMs = ({ startedAt }: ExamUnderWay): number => Date.parse(startedAt) + EXAM_MINUTES * MINUTE_MS;

  private set(exam: ExamUnderWay | null): void {
    this.now.set(exam);
    keepText(KEY, exam && JSON.stringify(exam));
  }
}
