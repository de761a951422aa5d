import type { Exam } from '@voltrek/contracts';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { dateText } from '../shared/model/dates';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { CAUSE_WORDS } from '@words/diagnosis-words';
import { FAILING_WORDS, RUNG_WORDS } from '@words/practice-words';
import { EXAM_PAGE, EXAM_PDF as T } from '@words/screens/exam';
import { VERDICT_WORDS } from '@words/verdict-words';

const moment = (iso: string): string => dateText(iso, 'dateTime');

/** An exam on a page: whose, each case with what was said and what it was, and who signed it. */
export function examDocument(exam: Exam, name: string, signer: string | null): TDocumentDefinitions {
  const minutes = Math.round((Date.parse(exam.endedAt) - Date.parse(exam.startedAt)) / MINUTE_MS);
  const head: Content[] = [T.skill, T.verdict, T.truth, T.minutes, T.result].map((text) => ({
    text,
    bold: true,
  }));
  const rows = exam.cases.map((one): Content[] => [
    RUNG_WORDS[one.rung].name,
    one.verdict ? VERDICT_WORDS[one.verdict].name : T.noVerdict,
    one.truth === null ? T.notTold : CAUSE_WORDS[one.truth],
    T.minutesOf({
      own: Math.round(one.minutes),
      tool: one.toolMinutes === null ? '-' : String(Math.round(one.toolMinutes)),
    }),
    one.passed ? T.right : one.failings.map((failing) => FAILING_WORDS[failing]).join(' '),
  ]);
  return {
    info: { title: T.title({ number: exam.number }) },
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 40],
    defaultStyle: { fontSize: 10, lineHeight: 1.2 },
    content: [
      { text: `${T.title({ number: exam.number })}: ${name}`, fontSize: 20, bold: true },
      { text: T.took({ start: moment(exam.startedAt), minutes }), margin: [0, 2, 0, 8] },
      { text: resultWords(exam), fontSize: 14, bold: true, margin: [0, 0, 0, 10] },
      {
        table: { headerRows: 1, widths: [90, 90, 110, 70, '*'], body: [head, ...rows] },
        layout: 'lightHorizontalLines',
      },
      {
        margin: [0, 40, 0, 0],
        text:
          signer && exam.signedAt
            ? T.signedOn({ name: signer, day: moment(exam.signedAt) })
            : `${T.signature}: ______________________________`,
      },
    ],
  };
}

/** How an exam went, in a few words. */
export function resultWords({ passed, isInTime, cases }: Exam): string {
  const right = EXAM_PAGE.right({ right: cases.filter((one) => one.passed).length, all: cases.length });
  const result = passed ? EXAM_PAGE.passed : isInTime ? EXAM_PAGE.notPassed : EXAM_PAGE.tooLate;
  return `${result}, ${right}`;
}
