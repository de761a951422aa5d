import { messagesOf } from './messages-of';

/** Something that has a file of its own. */
export type HouseFileId = 'atlas' | 'crew' | 'kit' | 'vehicles' | 'batteries' | 'calls' | 'jobs';
export interface HouseFile {
  readonly id: HouseFileId;
  readonly address: string;
}

/** Every file, in the order that they are brought in. */
export const HOUSE_FILES: readonly HouseFile[] = [
  { id: 'atlas', address: '/api/models' },
  { id: 'crew', address: '/api/files/crew' },
  { id: 'kit', address: '/api/files/kit' },
  { id: 'vehicles', address: '/api/files/vehicles' },
  { id: 'batteries', address: '/api/files/batteries' },
  { id: 'calls', address: '/api/files/calls' },
  { id: 'jobs', address: '/api/files/jobs' },
];

/** The name and content of each file. */
export const HOUSE_FILE_WORDS: Record<HouseFileId, { readonly name: string; readonly holds: string }> =
  messagesOf('houseFile');
