import type { Cause } from '@voltrek/core/diagnosis';
import { EXAM_NUMBER_MOST, type ExamCase, type ExamMarks, type ExamRun } from '@voltrek/core/practice';
import * as yup from 'yup';
import { record } from './calc/parts.js';
import { idText, instantText, parsed, uuid } from './text.js';

/** An exam that was taken, as its device sends it: what was done, not what it was worth. */
export interface NewExam {
  readonly id: string;
  /** The crew member who took it. */
  readonly by: string;
  readonly number: number;
  readonly startedAt: string;
  readonly endedAt: string;
  readonly runs: readonly ExamRun[];
}

/** An exam as the house keeps it, marked by the house, and as its file says. */
export interface Exam extends Omit<ExamMarks, 'cases'> {
  /** The true fault of a case is null until a lead has signed. */
  readonly cases: readonly (Omit<ExamCase, 'truth'> & { readonly truth: Cause | null })[];
  readonly format: 'voltrek-exam';
  readonly version: 1;
  readonly id: string;
  readonly crewId: string;
  readonly number: number;
  readonly startedAt: string;
  readonly endedAt: string;
  /** It was ended within its minutes: another is not passed. */
  readonly isInTime: boolean;
  /** The crew lead who looked at it; null until one did. */
  readonly signedBy: string | null;
  readonly signedAt: string | null;
}

/** Nobody does more to a case: a run of the tool is no longer than ninety. */
const ACTIONS_MOST = 500;
/** The actions of a case, from untrusted input. A replay shows whether they are possible. */
export const practiceActions = () =>
  yup
    .array()
    .of(yup.object({ kind: yup.string().max(20).required() }).required())
    .max(ACTIONS_MOST)
    .required();

export const NEW_EXAM = record({
  id: uuid().required(),
  by: idText(),
  number: yup.number().integer().min(1).max(EXAM_NUMBER_MOST).required(),
  startedAt: instantText().required(),
  endedAt: instantText().required(),
  runs: yup
    .array()
    .of(
      record({
        code: yup.string().max(60).required(),
        actions: practiceActions(),
      }).required(),
    )
    .max(10)
    .required(),
}).required();

/** An exam that was taken, from untrusted input; whether its runs can be replayed is seen when they are. @throws yup.ValidationError */
export const parseNewExam = (input: unknown): NewExam => parsed(NEW_EXAM, input) as unknown as NewExam;
