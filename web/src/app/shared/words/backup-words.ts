import type { BackupReason } from '@voltrek/contracts';
import { messagesOf } from './messages-of';
import { fixed } from './numbers';

export const BACKUP_REASON_WORDS: Record<BackupReason, string> = messagesOf('backupReason');

/** The size of a file, in megabytes as disks are sold. */
export const sizeWords = (bytes: number): string => `${fixed(bytes / 1_000_000, 1)} MB`;
