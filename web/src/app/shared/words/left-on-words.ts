import type { Consumer, LeftOn } from '@voltrek/core/charging';
import { percent } from './figures';
import { fixed } from './numbers';
import { messagesOf } from './messages-of';

/** Consumers that get left on. */
export const CONSUMER_WORDS: Record<Consumer, string> = messagesOf('consumer');

const T = messagesOf('leftOn');

/** Charge left under which a consumer that stayed on explains a flat battery. */
const EXPLAINS_BELOW = 0.35;

/** The charge that it took, and its meaning. */
export function leftOnLine({ takenAh, socLeft, emptyAfterHours }: LeftOn, capacityAh: number): string {
  const taken = fixed(takenAh, takenAh < 10 ? 1 : 0);
  const capacity = fixed(capacityAh);
  if (socLeft <= 0) return T.empty({ taken, capacity, hours: fixed(emptyAfterHours) });
  const left = percent(socLeft);
  return socLeft < EXPLAINS_BELOW
    ? T.explains({ taken, capacity, left })
    : T.other({ taken, capacity, left });
}
