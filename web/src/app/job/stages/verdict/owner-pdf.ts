import { withinSentence } from '@words/numbers';
import { callWord } from '@words/call-words';
import { FOLLOW_UP_WORDS } from '@words/follow-up-words';
import type { FollowUp } from '@voltrek/core/verdict';
import { dateText } from '../../../shared/model/dates';
import { ICalCalendar } from 'ical-generator';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { CAUTION_WORDS } from '@words/words';
import { OWNER_PDF as T } from '@words/screens/job-stages-verdict';

/** The text of the page that is handed over. */
export interface OwnerPage {
  readonly callNumber: number;
  /** The day of the visit, whenever it is printed. */
  readonly visitedOn: Date;
  readonly title: string;
  readonly crewName: string;
  readonly finding: string;
  readonly advice: readonly string[];
  /** Dates later than today. */
  readonly dates: readonly { readonly kind: FollowUp['kind']; readonly on: Date }[];
}

const INK = '#18222b';
const DIM = '#55606a';
/** Width of the code, points: a phone reads it at arm's length. */
const CODE_POINTS = 150;

/** The dates of a page as a calendar that a phone takes in: whole days, no alarm of ours. */
export function datesCalendar({ callNumber, title, dates }: OwnerPage): string {
  const calendar = new ICalCalendar({ prodId: '//voltrek//owner//EN' });
  for (const { kind, on } of dates)
    calendar.createEvent({
      id: `${callNumber}-${kind}@voltrek`,
      start: on,
      allDay: true,
      summary: `${FOLLOW_UP_WORDS[kind]}: ${title}`,
    });
  return calendar.toString();
}

/** One page for the owner: what was wrong, what to do, and when, with the dates as a code for a phone. */
export function ownerDocument(page: OwnerPage): TDocumentDefinitions {
  const { callNumber, title, finding, advice, dates, crewName } = page;
  const later: Content[] =
    dates.length === 0
      ? []
      : [
          { text: T.datesToKeep, bold: true, fontSize: 15, margin: [0, 18, 0, 6] },
          {
            columns: [
              {
                width: '*',
                ul: dates.map(
                  ({ kind, on }) => `${dateText(on, 'weekdayLongDate')}: ${FOLLOW_UP_WORDS[kind]}`,
                ),
              },
              { width: 'auto', qr: datesCalendar(page), fit: CODE_POINTS, eccLevel: 'L' },
            ],
            columnGap: 20,
          },
          {
            text: T.calendarHint,
            color: DIM,
            fontSize: 10,
          },
        ];
  return {
    info: { title: T.forTheOwner({ title: withinSentence(callWord(callNumber)) }) },
    pageSize: 'A4',
    pageMargins: [54, 48, 54, 54],
    defaultStyle: { fontSize: 12.5, color: INK, lineHeight: 1.25 },
    footer: () => ({ text: CAUTION_WORDS.standing, fontSize: 9, color: DIM, margin: [54, 20, 54, 0] }),
    content: [
      { text: T.title, fontSize: 26, bold: true },
      {
        text: `${title}. ${callWord(callNumber)}, ${dateText(page.visitedOn, 'longDate')}, ${crewName}`,
        color: DIM,
      },
      { text: finding, fontSize: 16, bold: true, margin: [0, 16, 0, 10] },
      { ol: advice.map((text) => ({ text, margin: [0, 0, 0, 6] })) },
      ...later,
    ],
  };
}
