import type { BackupReason } from '@voltrek/contracts';

export const BACKUP_REASON_WORDS: Record<BackupReason, string> = {
  'by-time': 'by the clock',
  'by-hand': 'asked for',
  'before-migration': 'before the data was brought to a new version',
};

/** The size of a file, in megabytes as disks are sold. */
export const sizeWords = (bytes: number): string => `${(bytes / 1_000_000).toFixed(1)} MB`;
