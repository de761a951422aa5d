import type { LatchPlace, LatchStep } from '@voltrek/core/reach';
import { messagesOf } from './messages-of';

/** The places at which a machine that does not open may be opened, and how one finds each. */
export const LATCH_PLACE_WORDS: Record<LatchPlace, { readonly name: string; readonly how: string }> =
  messagesOf('latchPlace');

/** The acts there, step by step. */
export const LATCH_STEP_WORDS: Record<LatchStep, { readonly act: string; readonly why: string }> =
  messagesOf('latchStep');
