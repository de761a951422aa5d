import type { FollowUp } from '@voltrek/core/verdict';
import { messagesOf } from './messages-of';

/** Words of a follow-up, on screen and in a calendar. */
export const FOLLOW_UP_WORDS: Record<FollowUp['kind'], string> = messagesOf('followUp');
