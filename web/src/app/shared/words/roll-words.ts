import type { RollStep } from '@voltrek/core/machine';
import { messagesOf } from './messages-of';

/** Each step of a rolling start as an order, and what to mind there. */
export const ROLL_STEP_WORDS: Record<RollStep, { readonly act: string; readonly why: string }> =
  messagesOf('rollStep');
