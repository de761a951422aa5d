import { type ClampId, isRedClamp, isSourceClamp } from '@voltrek/core/circuit';
import { messagesOf } from './messages-of';

const HANDS = messagesOf('hands');

/** Returns the name of a clamp: its colour and its end. */
export const clampWords = (clamp: ClampId): string =>
  HANDS.clamp({
    colour: isRedClamp(clamp) ? HANDS.red : HANDS.black,
    end: isSourceClamp(clamp) ? HANDS.sourceEnd : HANDS.casualtyEnd,
  });
