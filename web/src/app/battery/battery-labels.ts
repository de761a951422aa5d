import type { Battery } from '@voltrek/contracts';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { ratingWords } from '@words/figures';
import { BATTERY_LABELS as T } from '@words/screens/battery';

/** Labels on a sheet of A4: three beside one another. */
const ACROSS = 3;

/** A sheet of labels: the code to type, and the address of the record for any camera. */
export function labelSheet(batteries: readonly Battery[], origin: string): TDocumentDefinitions {
  const cells = batteries.map((battery) => labelOf(battery, origin));
  const rows: Content[][] = [];
  for (let from = 0; from < cells.length; from += ACROSS) {
    const row = cells.slice(from, from + ACROSS);
    rows.push([...row, ...Array.from({ length: ACROSS - row.length }, (): Content => '')]);
  }
  return {
    info: { title: T.title },
    pageSize: 'A4',
    pageMargins: [24, 24, 24, 24],
    content: [
      { table: { widths: Array.from({ length: ACROSS }, () => '*'), body: rows, dontBreakRows: true } },
    ],
  };
}

function labelOf({ id, code, rating, dateMark }: Battery, origin: string): Content {
  return {
    margin: [6, 8, 6, 8],
    columns: [
      { qr: `${origin}/battery/${id}`, fit: 78, width: 84 },
      {
        stack: [
          { text: `${code.slice(0, 3)}\u00a0${code.slice(3)}`, fontSize: 15, bold: true },
          { text: ratingWords(rating), fontSize: 8 },
          { text: dateMark ? T.marked({ dateMark }) : '', fontSize: 8 },
        ],
      },
    ],
  };
}
