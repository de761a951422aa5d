import type { GuardDark } from '@voltrek/core/hookup';
import { messagesOf } from './messages-of';

/** Why a guard lamp stays dark, and the way out. */
export const GUARD_DARK_WORDS: Record<GuardDark, string> = messagesOf('guardDark');
