import type { EventType } from '@voltrek/core/job';
import { messagesOf } from './messages-of';

/** The name of each kind of event when it is spoken of. */
export const EVENT_WORDS: Record<EventType, string> = messagesOf('event');
