import type { FollowUp } from '@voltrek/core/verdict';

/** Words of a follow-up, on the wire and in a calendar. */
export const FOLLOW_UP_WORDS: Record<FollowUp['kind'], string> = {
  charge: 'Charge to full, tenth of capacity in amps',
  'charge-monthly': 'Charge to full once a month',
  maintainer: 'Leave it on a maintainer',
  recheck: 'Recheck after 24 h rest',
  replace: 'Replace the battery',
  inspect: 'Inspect',
  workshop: 'Hand to a workshop',
};

/** The words of a calendar file. */
export interface CalendarWords {
  readonly name: string;
  readonly call: string;
  readonly kinds: typeof FOLLOW_UP_WORDS;
}

/** The calendar file in each language: a file takes the language of its request. */
export const CALENDAR_WORDS = {
  en: { name: 'Voltrek follow-ups', call: 'Call', kinds: FOLLOW_UP_WORDS },
  de: {
    name: 'Voltrek Nachgang',
    call: 'Einsatz',
    kinds: {
      charge: 'Voll laden, mit einem Zehntel der Kapazität in Ampere',
      'charge-monthly': 'Einmal im Monat voll laden',
      maintainer: 'An einem Erhaltungslader lassen',
      recheck: 'Nachprüfung nach 24 h Ruhe',
      replace: 'Batterie ersetzen',
      inspect: 'Durchsicht',
      workshop: 'In die Werkstatt geben',
    },
  },
} as const satisfies Readonly<Record<string, CalendarWords>>;
