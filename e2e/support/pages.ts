/** Addresses of the pages beside a job, one of each kind. */
export const PAGES: readonly string[] = [
  'board',
  'atlas',
  'kit',
  'log',
  'figures',
  'follow-ups',
  'vehicles',
  'batteries',
  'vehicle/brinmoor-carrow-22d-a',
  'bench',
  'rules',
  'practice',
  'practice/drills',
  'practice/string-1',
  'practice/write',
  'practice/exam',
];
