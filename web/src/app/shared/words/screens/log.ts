import { type Shown, tell } from '../tell';

/** Words of the screens of log, one list a part. */

export const LOG_PAGE = {
  log: 'Log',
  closedJobsNewestFirst: 'closed jobs, newest first',
  followUps: 'Follow-ups',
  files: 'Files',
  searchTheLog: 'Search the log',
  machinePlaceCallNumberOrPlate: 'machine, place, call number or plate',
  verdict: 'Verdict',
  all: 'all',
  noClosedJobMatches: 'No closed job matches.',
  newer: 'Newer',
  older: 'Older',
  page: (pages: Shown) => tell`page ${pages}`,
} as const;
