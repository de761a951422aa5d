import type { ShiftEnd, ShiftLeft } from '@voltrek/contracts';
import { NEED_WORDS } from '@words/atlas-words';
import type { NamesById } from '@words/filter-words';
import { SHIFT_PAGE as T } from '@words/screens/board';
import { dateText, timeOfDay } from '../shared/model/dates';

/** Names of the people and vans of a shift by their ids. */
export type PeopleAndVans = Pick<NamesById, 'person' | 'van'>;

/** One kind of what is left, in words. */
export interface ShiftPart {
  readonly title: string;
  /** Said where nothing of it is left. */
  readonly none: string;
  readonly lines: readonly { readonly text: string; readonly jobId: string | null }[];
}

/** Returns the open things part by part: the page and the PDF show the same lines. */
export function shiftParts(left: ShiftLeft, names: PeopleAndVans): readonly ShiftPart[] {
  const calls = left.calls.map((call) => {
    const { vanId, technicianId, chargeUntil, promisedAt } = call;
    const who = technicianId
      ? T.withVan({ van: vanId ? names.van(vanId) : '', person: names.person(technicianId) })
      : T.waits;
    const parts = [
      T.call({ number: call.number, title: call.title, place: call.placeName }),
      who,
      chargeUntil ? T.onCharge({ due: timeOfDay(chargeUntil) }) : '',
      promisedAt && !call.jobId ? T.promised({ due: timeOfDay(promisedAt) }) : '',
    ];
    return { text: parts.filter(Boolean).join('; '), jobId: call.jobId };
  });
  const kit = left.kit.map(({ name, vanId, need }) => ({
    text: `${names.van(vanId)}: ${name}, ${NEED_WORDS[need]}`,
    jobId: null,
  }));
  const rechecks = left.rechecks.map(({ dueOn, title, placeName, jobId }) => ({
    text: T.recheck({ day: dateText(dueOn, 'weekdayDate'), title, place: placeName }),
    jobId,
  }));
  return [
    { title: T.calls, none: T.noCalls, lines: calls },
    { title: T.kit, none: T.noKit, lines: kit },
    { title: T.rechecks, none: T.noRechecks, lines: rechecks },
  ];
}

/** Returns a line for the person who gave a shift over, and one for the person who took it. */
export function signatures({ givenBy, givenAt, takenBy, takenAt }: ShiftEnd, names: PeopleAndVans): string[] {
  return [
    T.given({ name: names.person(givenBy), at: dateText(givenAt, 'dateTime') }),
    takenBy && takenAt ? T.taken({ name: names.person(takenBy), at: dateText(takenAt, 'dateTime') }) : T.open,
  ];
}
