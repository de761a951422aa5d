import type { ShiftEnd, ShiftLeft } from '@voltrek/contracts';
import { NEED_WORDS } from '@words/atlas-words';
import { nameOf } from '@words/figures';
import { SHIFT_PAGE as T } from '@words/screens/board';
import { dateText, timeOfDay } from '../shared/model/dates';

/** Names of people and vans by their ids. */
export interface ShiftNames {
  readonly crew: readonly { readonly id: string; readonly name: string }[];
  readonly vans: readonly { readonly id: string; readonly name: string }[];
}

/** One kind of what is left, in words. */
export interface ShiftPart {
  readonly title: string;
  /** Said where nothing of it is left. */
  readonly none: string;
  readonly lines: readonly { readonly text: string; readonly jobId: string | null }[];
}

/** Returns the open things part by part: the page and the PDF show the same lines. */
export function shiftParts(left: ShiftLeft, { crew, vans }: ShiftNames): readonly ShiftPart[] {
  const calls = left.calls.map((call) => {
    const { vanId, technicianId, chargeUntil, promisedAt } = call;
    const who = technicianId
      ? T.withVan({ van: vanId ? nameOf(vans, vanId) : '', person: nameOf(crew, technicianId) })
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
    text: `${nameOf(vans, vanId)}: ${name}, ${NEED_WORDS[need]}`,
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
export function signatures({ givenBy, givenAt, takenBy, takenAt }: ShiftEnd, { crew }: ShiftNames): string[] {
  return [
    T.given({ name: nameOf(crew, givenBy), at: dateText(givenAt, 'dateTime') }),
    takenBy && takenAt ? T.taken({ name: nameOf(crew, takenBy), at: dateText(takenAt, 'dateTime') }) : T.open,
  ];
}
