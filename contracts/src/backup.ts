import type * as yup from 'yup';
import { record } from './calc/parts.js';
import { idText, parsed } from './text.js';

export const BACKUP_REASONS = ['by-time', 'by-hand', 'before-migration'] as const;
export type BackupReason = (typeof BACKUP_REASONS)[number];

/** A backup that was opened and whose logs were folded. */
export interface Backup {
  /** Its file, in the backups of the data folder. */
  readonly name: string;
  readonly at: string;
  readonly reason: BackupReason;
  readonly bytes: number;
  readonly sha256: string;
  readonly jobs: number;
  readonly events: number;
  /** Jobs whose log could not be folded, in the database as well as in the backup. */
  readonly broken: number;
  readonly checkedAt: string;
}

/** The backups of a house, newest first. */
export interface BackupState {
  readonly backups: readonly Backup[];
  readonly isUnderWay: boolean;
  /** Why the last one was not made; null when it was. */
  readonly problem: string | null;
}

export const BACKUP_WANTED = record({ by: idText() }).required();

/** Reads the name of the person who wants a backup now. @throws yup.ValidationError */
export const parseBackupWanted = (input: unknown): yup.InferType<typeof BACKUP_WANTED> =>
  parsed(BACKUP_WANTED, input);
