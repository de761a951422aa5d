import type { Refusal } from '@voltrek/core/job';
import { messagesOf } from './messages-of';

/** Words for a refused event. */
export const REFUSAL_WORDS: Record<Refusal, string> = messagesOf('refusal');
