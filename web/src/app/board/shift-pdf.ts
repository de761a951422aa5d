import type { ShiftEnd } from '@voltrek/contracts';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { SHIFT_PAGE as T } from '@words/screens/board';
import { dateText } from '../shared/model/dates';
import { language } from '../shared/model/language';
import { type PeopleAndVans, shiftParts, signatures } from './shift-words';

/** The end of a shift on paper, with a line for each signature. */
export function shiftDocument(shift: ShiftEnd, names: PeopleAndVans): TDocumentDefinitions {
  const title = `${T.title}, ${dateText(shift.givenAt, 'dateTime')}`;
  const parts = shiftParts(shift.left, names).flatMap((part): Content[] => [
    { text: part.title, bold: true, fontSize: 13, margin: [0, 12, 0, 4] },
    part.lines.length > 0 ? { ul: part.lines.map(({ text }) => text) } : { text: part.none },
  ]);
  const signed = signatures(shift, names).flatMap((line): Content[] => [
    { text: line, margin: [0, 22, 0, 0] },
    { text: `${T.signature}: ______________________________`, margin: [0, 14, 0, 0] },
  ]);
  return {
    info: { title },
    language: language(),
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 40],
    defaultStyle: { fontSize: 10, lineHeight: 1.25 },
    content: [
      { text: title, fontSize: 20, bold: true },
      ...(shift.note ? [{ text: shift.note, margin: [0, 6, 0, 0] } as Content] : []),
      ...parts,
      ...signed,
    ],
  };
}
