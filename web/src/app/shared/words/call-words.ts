import { NOT_NUMBERED } from '../model/errand';
import type { BoardCall, CallChangeKind } from '@voltrek/contracts';
import { vehicleName } from './figures';
import { messagesOf } from './messages-of';

/** Acts on a call. */
export const CALL_CHANGE_WORDS: Record<CallChangeKind, string> = messagesOf('callChange');

const T = messagesOf('callName');

/** A call by its number; one that no server has numbered yet is the new one. */
export const callWord = (number: number): string =>
  number === NOT_NUMBERED ? T.new : T.numbered({ number });

/** Returns the vehicle of a call by its numbers, and the place, as far as they are known. */
export const vehicleAndPlace = ({ vehicle, placeName }: BoardCall): string =>
  [vehicleName(vehicle), placeName].filter(Boolean).join(', ');

/** Returns the title of a call with its place, where somebody told one. */
export const withPlace = ({
  title,
  placeName,
}: {
  readonly title: string;
  readonly placeName: string;
}): string => (placeName ? `${title}, ${placeName}` : title);
