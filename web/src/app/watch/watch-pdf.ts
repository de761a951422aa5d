import { vehicleWord } from '@words/figures';
import { WATCH_PAGE as T } from '@words/screens/watch';
import { degrees } from '@words/units';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { dateText } from '../shared/model/dates';
import { language } from '../shared/model/language';
import type { Watched } from './watch-store';
import {
  type ColdNight,
  cureText,
  type Letter,
  oddsText,
  ownerText,
  reasonText,
  roundsOf,
} from './watch-words';

const page = (title: string, content: Content[]): TDocumentDefinitions => ({
  info: { title },
  language: language(),
  pageSize: 'A4',
  pageMargins: [40, 40, 40, 40],
  defaultStyle: { fontSize: 10, lineHeight: 1.25 },
  content,
});

/** The list on paper: a round for each place, worst first. */
export function listDocument(listed: readonly Watched[], night: ColdNight): TDocumentDefinitions {
  const title = `${T.title}: ${dateText(night.day, 'weekdayDate')}, ${degrees(night.lowC)}`;
  const rounds = roundsOf(listed).flatMap(({ place, watched, minutes }): Content[] => [
    {
      text: T.round({ place, vehicles: watched.length, minutes }),
      bold: true,
      fontSize: 13,
      margin: [0, 12, 0, 4],
    },
    {
      table: {
        widths: [60, 150, '*', 140],
        body: watched.map((one) => [
          T.odds({ odds: oddsText(one.outlook.start) }),
          `${vehicleWord(one.vehicle)}\n${one.vehicle.modelName}`,
          `${reasonText(one)}\n${cureText(one)}`,
          ownerText(one),
        ]),
      },
      layout: 'lightHorizontalLines',
    },
  ]);
  return page(title, [{ text: title, fontSize: 18, bold: true }, ...rounds]);
}

/** A letter to each owner, a page each. */
export const lettersDocument = (letters: readonly Letter[]): TDocumentDefinitions =>
  page(
    T.letters,
    letters.flatMap(({ to, lines }, i): Content[] => [
      {
        text: T.letterTo({ name: to }),
        fontSize: 14,
        bold: true,
        ...(i > 0 && { pageBreak: 'before' as const }),
      },
      ...lines.map((text): Content => ({ text, margin: [0, 10, 0, 0] })),
    ]),
  );
