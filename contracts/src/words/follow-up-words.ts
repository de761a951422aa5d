import type { FollowUp } from '@voltrek/core/verdict';

/** Words of a follow-up, on screen and in a calendar. */
export const FOLLOW_UP_WORDS: Record<FollowUp['kind'], string> = {
  charge: 'Charge to full, tenth of capacity in amps',
  'charge-monthly': 'Charge to full once a month',
  maintainer: 'Leave it on a maintainer',
  recheck: 'Recheck after 24 h rest',
  replace: 'Replace the battery',
  inspect: 'Inspect',
  workshop: 'Hand to a workshop',
};
