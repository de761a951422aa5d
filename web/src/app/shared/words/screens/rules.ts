import { type Shown, tell } from '../tell';

/** Words of the screens of rules, one list a part. */

export const BACKUPS_PART = {
  backups: 'Backups',
  backingUp: 'Backing up',
  backUpNow: 'Back up now',
  theLastGoodBackupIsOlder: 'The last good backup is older than half a day.',
  eventsOfJobsOpenedAndChecked: (events: Shown, jobs: Shown, bytes: Shown, checkedAt: Shown) =>
    tell`${events} events of ${jobs} jobs, ${bytes}, opened and checked ${checkedAt}`,
  logsCannotBeRead: (broken: Shown) => tell`${broken} logs cannot be read`,
  noneYetOneIsMadeEvery: 'None yet. One is made every six hours while something is written.',
  theLastBackupWasNotMade: (last: Shown) => tell`The last backup was not made: ${last}`,
} as const;

export const RULES_PAGE = {
  houseRules: 'House rules',
  safetyOutranksASchoolAnOrder: 'Safety outranks a school: an order with a severe step is never given.',
  ourDefault: 'our default: ',
  defaultWord: 'default ',
  setBefore: 'Set before',
} as const;
