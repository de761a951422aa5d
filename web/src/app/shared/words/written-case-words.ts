import type { WrittenFault } from '@voltrek/core/practice';
import { messagesOf } from './messages-of';

/** Why a written case cannot be played, for the part that it stands beside. */
export const WRITTEN_FAULT_WORDS: Readonly<Record<WrittenFault, string>> = messagesOf('writtenFault');
