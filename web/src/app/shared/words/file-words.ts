/** Something that has a file of its own. */
export interface HouseFile {
  readonly name: string;
  readonly holds: string;
  readonly address: string;
}

/** Every file, in the order that they are brought in. */
export const HOUSE_FILES: readonly HouseFile[] = [
  { name: 'atlas', holds: 'models, their points and how to reach them', address: '/api/models' },
  { name: 'crew', holds: 'who works here, and who did', address: '/api/files/crew' },
  { name: 'kit', holds: 'vans and what is on them', address: '/api/files/kit' },
  { name: 'vehicles', holds: 'whose they are, plates and numbers', address: '/api/files/vehicles' },
  { name: 'batteries', holds: 'ratings, and where each has been', address: '/api/files/batteries' },
  { name: 'calls', holds: 'who called, what was said, who took it', address: '/api/files/calls' },
  { name: 'jobs', holds: 'the log of each, event by event', address: '/api/files/jobs' },
];
