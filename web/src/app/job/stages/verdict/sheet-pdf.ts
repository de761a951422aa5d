import { withinSentence } from '@words/numbers';
import { callWord, withPlace } from '@words/call-words';
import { FOLLOW_UP_WORDS } from '@words/follow-up-words';
import type { JobSheet } from '@voltrek/core/job';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { addDays } from 'date-fns';
import { dateText, timeOfDay } from '../../../shared/model/dates';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { FINDING_NAMES, foundWords, GROUND_WORDS, pushWords } from '@words/diagnosis-words';
import { shareTold } from '@words/certainty-words';
import { percent, ratingWords } from '@words/figures';
import { degrees } from '@words/units';
import { CAUSE_WORDS } from '@words/diagnosis-words';
import { overrideName } from '@words/override-words';
import { CAUTION_WORDS, STOP_WORDS } from '@words/words';
import { VERDICT_WORDS } from '@words/verdict-words';
import type { Work } from '../../../shared/job/job-selectors';
import { mendedLines, readingLines, tryLines, verdictLine } from './sheet-text';
import { SHEET_PDF as T } from '@words/screens/job-stages-verdict';

const INK = '#18222b';
const DIM = '#55606a';
const LINE = '#cfc8b8';
const LEDGER_LINES = 8;
/** Room for the Circuit, points: it keeps its shape inside. */
const CIRCUIT_ROOM: [width: number, height: number] = [176, 196];

/** Room for a photo, points. */
const PHOTO_ROOM: [width: number, height: number] = [250, 190];

const head = (text: string): Content => ({ text, bold: true, fontSize: 11, margin: [0, 9, 0, 3] });
const moment = (iso: string): string => dateText(iso, 'dateTime');
const rows = (body: Content[][], widths: (string | number)[]): Content => ({
  table: { widths, body },
  layout: { hLineWidth: () => 0.5, vLineWidth: () => 0, hLineColor: () => LINE, paddingLeft: () => 0 },
});

/**
 * The job sheet as a document: what was found, what is said of it, and a place to sign.
 *
 * @param circuitSvg the Circuit, whole in itself; null where there was no hook-up to draw
 * @param pictures its photos as data URLs, by id; those that are not at hand are told
 */
export function sheetDocument(
  sheet: JobSheet,
  record: VerdictRecord,
  work: Work,
  crewName: string,
  circuitSvg: string | null,
  pictures: ReadonlyMap<string, string> = new Map(),
): TDocumentDefinitions {
  return {
    info: { title: T.documentTitle({ title: withinSentence(callWord(sheet.callNumber)) }) },
    pageSize: 'A4',
    pageMargins: [40, 32, 40, 40],
    defaultStyle: { fontSize: 9.5, color: INK, lineHeight: 1.15 },
    footer: (page, pages) => ({
      text: T.pageOf({
        caution: CAUTION_WORDS.standing,
        callNumber: callWord(sheet.callNumber),
        page,
        pages,
      }),
      fontSize: 8,
      color: DIM,
      margin: [40, 14, 40, 0],
    }),
    content: [
      {
        columns: [
          { text: T.jobSheet, fontSize: 20, bold: true },
          { text: callWord(sheet.callNumber), fontSize: 14, bold: true, alignment: 'right' },
        ],
      },
      { text: withPlace(sheet), fontSize: 12, margin: [0, 2, 0, 2] },
      {
        text: `${moment(sheet.openedAt)}${sheet.closedAt ? T.to({ closedAt: moment(sheet.closedAt) }) : T.stillOpen}. ${crewName}. ${degrees(sheet.tempC)}`,
        color: DIM,
      },
      { text: machineLine(sheet), margin: [0, 4, 0, 0] },
      verdictBox(sheet, record),
      {
        columns: [
          {
            width: '*',
            stack: [head(T.readings), readings(work), ...mended(work), ...tries(work), ...stops(sheet)],
          },
          ...(circuitSvg
            ? [
                {
                  width: CIRCUIT_ROOM[0],
                  stack: [head(T.circuit), { svg: circuitSvg, fit: CIRCUIT_ROOM } as Content],
                },
              ]
            : []),
        ],
        columnGap: 18,
      },
      head(T.evidence),
      ledger(record),
      head(T.next),
      nextSteps(sheet, record),
      ...cautions(sheet),
      ...overrides(sheet),
      ...notes(sheet),
      ...photos(sheet, pictures),
      signatures(crewName),
    ],
  };
}

function machineLine({ machine }: JobSheet): string {
  const batteries = machine.batteries.map((b) => `${ratingWords(b)}, ${b.place}`);
  return `${machine.maker} ${machine.model}, ${machine.systemVolts} V. ${batteries.join('; ')}`;
}

function verdictBox(sheet: JobSheet, record: VerdictRecord): Content {
  const shownShare = shareTold(record);
  const share = shownShare === null ? '' : ` ${percent(shownShare)}.`;
  const causes = (record.causes ?? []).map((c) => `${CAUSE_WORDS[c.cause]} ${percent(c.share)}`).join(', ');
  const provisional = sheet.verdict ? '' : T.notGivenYet;
  return {
    margin: [0, 8, 0, 0],
    table: {
      widths: ['*'],
      body: [
        [
          {
            margin: [6, 4, 6, 4],
            stack: [
              { text: `${verdictLine(record)}${share}${provisional}`, fontSize: 14, bold: true },
              { text: VERDICT_WORDS[record.verdict].means },
              { text: record.ground ? GROUND_WORDS[record.ground] : '', color: DIM },
              { text: causes ? T.likeliest({ causes }) : '', color: DIM },
            ],
          },
        ],
      ],
    },
  };
}

function readings(work: Work): Content {
  const lines = readingLines(work);
  if (lines.length === 0) return { text: T.noneTaken, color: DIM };
  return rows(
    lines.map(({ name, value, note }) => [name, { text: value, bold: true }, { text: note, color: DIM }]),
    ['*', 'auto', '*'],
  );
}

function mended({ job }: Work): Content[] {
  const lines = mendedLines(job);
  return lines.length === 0 ? [] : [head(T.mendedHere), { ul: lines }];
}

function tries(work: Work): Content[] {
  const lines = tryLines(work);
  return lines.length === 0 ? [] : [head(T.tries), { ul: lines }];
}

function stops({ stops: raised }: JobSheet): Content[] {
  return raised.length === 0
    ? []
    : [head(T.stopped), { ul: raised.map((s) => `${STOP_WORDS[s].sign}. ${STOP_WORDS[s].instead}`) }];
}

function ledger({ ledger: lines = [] }: VerdictRecord): Content {
  if (lines.length === 0) return { text: T.noEvidence, color: DIM };
  return rows(
    lines
      .slice(0, LEDGER_LINES)
      .map(({ check, found, bits }) => [
        FINDING_NAMES[check],
        foundWords(check, found),
        { text: pushWords(bits), alignment: 'right' },
      ]),
    ['*', '*', 'auto'],
  );
}

function nextSteps(sheet: JobSheet, record: VerdictRecord): Content {
  const from = new Date(sheet.recheck?.at ?? sheet.closedAt ?? Date.now());
  return {
    ul: record.followUps.map(
      ({ kind, days }) =>
        `${FOLLOW_UP_WORDS[kind]}: ${days === 0 ? 'now' : dateText(addDays(from, days), 'weekdayDate')}`,
    ),
  };
}

function cautions({ cautions: own, never, resets }: JobSheet): Content[] {
  const told = [...own, ...never.map((line) => T.never({ line }))];
  const again = resets.map(({ reset, done }) => `${reset}: ${done ? 'set' : T.toBeSet}`);
  return [
    ...(told.length ? [head(T.cautions), { ul: [...told] }] : []),
    ...(again.length ? [head(T.resets), { text: again.join('. ') }] : []),
  ];
}

function overrides({ overrides: given }: JobSheet): Content[] {
  return given.length === 0
    ? []
    : [head(T.overrides), { ul: given.map(({ rule, reason }) => `${overrideName(rule)}: ${reason}`) }];
}

function notes({ notes: written }: JobSheet): Content[] {
  return written.length === 0
    ? []
    : [head(T.notes), { ul: written.map(({ at, text }) => `${timeOfDay(at)}: ${text}`) }];
}

/** Two abreast, each with its time and its words. */
function photos({ photos: taken }: JobSheet, pictures: ReadonlyMap<string, string>): Content[] {
  if (taken.length === 0) return [];
  const cells = taken.map(({ photoId, at, caption }): Content => {
    const image = pictures.get(photoId);
    const words = [timeOfDay(at), caption].filter(Boolean).join(': ');
    return {
      stack: [
        image ? { image, fit: PHOTO_ROOM } : { text: T.photoMissing, color: DIM },
        { text: words, fontSize: 8.5, margin: [0, 2, 0, 6] },
      ],
      unbreakable: true,
    };
  });
  const pairs = cells.flatMap((cell, i) => (i % 2 === 0 ? [[cell, cells[i + 1] ?? { text: '' }]] : []));
  return [head(T.photos), { table: { widths: ['*', '*'], body: pairs }, layout: 'noBorders' }];
}

function signatures(crewName: string): Content {
  const line = (name: string): Content => ({
    stack: [
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 220, y2: 0, lineWidth: 0.7 }] },
      { text: name, color: DIM, fontSize: 8.5, margin: [0, 2, 0, 0] },
    ],
  });
  return {
    unbreakable: true,
    margin: [0, 30, 0, 0],
    columns: [line(T.technician({ crewName })), line(T.signOwner)],
  };
}
