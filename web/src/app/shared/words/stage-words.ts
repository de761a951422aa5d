import type { Stage } from '@voltrek/core/job';
import { messagesOf } from './messages-of';

export const STAGE_WORDS: Record<Stage, string> = messagesOf('stage');
