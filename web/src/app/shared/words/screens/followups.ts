import { type Shown, tell } from '../tell';

/** Words of the screens of followups, one list a part. */

export const FOLLOW_UPS_PAGE = {
  followUps: 'Follow-ups',
  toDoLate: (due: Shown, late: Shown) => tell`${due} to do, ${late} late`,
  calendarFile: 'Calendar file',
  late: 'late',
  recheck: 'Recheck',
  chargeItOpenAJob: 'Charge it: open a job',
  done: 'Done',
  nothingIsDue: 'Nothing is due.',
  charge: (title: Shown) => tell`Charge: ${title}`,
} as const;
