import type { Suspect } from '@voltrek/core/diagnosis';
import type { Certainty, VerdictKind } from '@voltrek/core/verdict';
import { messagesOf } from './messages-of';

export const VERDICT_WORDS: Record<VerdictKind, { readonly name: string; readonly means: string }> =
  messagesOf('verdict');

export const SUSPECT_WORDS: Record<Suspect, string> = messagesOf('suspect');

export const CERTAINTY_WORDS: Record<Certainty, string> = messagesOf('certainty');
