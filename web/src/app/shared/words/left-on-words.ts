import type { Consumer, LeftOn } from '@voltrek/core/charging';
import { percent } from './figures';
import { messagesOf } from './messages-of';

/** Consumers that get left on. */
export const CONSUMER_WORDS: Record<Consumer, string> = messagesOf('consumer');

/** The charge that it took, and its meaning. */
export function leftOnLine({ takenAh, socLeft, emptyAfterHours }: LeftOn, capacityAh: number): string {
  const took = `That takes about ${takenAh.toFixed(takenAh < 10 ? 1 : 0)} Ah of ${capacityAh.toFixed(0)}`;
  return socLeft <= 0
    ? `${took}: empty after ${emptyAfterHours.toFixed(0)} h. It explains this; each hour more harms the battery.`
    : `${took}: about ${percent(socLeft)} left${socLeft < 0.35 ? ', enough to explain this' : ', which does not explain this by itself'}.`;
}
