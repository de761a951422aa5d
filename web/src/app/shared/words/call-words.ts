import { NOT_NUMBERED } from '../model/errand';
import type { CallChangeKind } from '@voltrek/contracts';
import { messagesOf } from './messages-of';

/** Acts on a call. */
export const CALL_CHANGE_WORDS: Record<CallChangeKind, string> = messagesOf('callChange');

const T = messagesOf('callName');

/** A call by its number; one that no server has numbered yet is the new one. */
export const callWord = (number: number): string =>
  number === NOT_NUMBERED ? T.new : T.numbered({ number });

/** Returns the title of a call with its place, where somebody told one. */
export const withPlace = ({
  title,
  placeName,
}: {
  readonly title: string;
  readonly placeName: string;
}): string => (placeName ? `${title}, ${placeName}` : title);
