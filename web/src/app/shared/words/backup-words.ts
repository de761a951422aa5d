import type { BackupReason } from '@voltrek/contracts';
import { messagesOf } from './messages-of';

export const BACKUP_REASON_WORDS: Record<BackupReason, string> = messagesOf('backupReason');

/** The size of a file, in megabytes as disks are sold. */
export const sizeWords = (bytes: number): string => `${(bytes / 1_000_000).toFixed(1)} MB`;
