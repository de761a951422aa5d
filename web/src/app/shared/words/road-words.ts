import type { Road } from '@voltrek/core/job';
import type { RunDown } from '@voltrek/core/charging';
import { minutesWords } from './way-words';
import { driveWords } from './words';

/** How long it runs on a battery that nothing charges. */
export const runDownWords = ({ lampsMinutes, allOnMinutes }: RunDown): string =>
  lampsMinutes < 1
    ? 'no time at all'
    : `${minutesWords(lampsMinutes)} with lamps only, ${minutesWords(allOnMinutes)} with heater and screen`;

/** Words of the advice on driving; null where there is none. */
export function roadWords(road: Road | null): string | null {
  switch (road?.kind) {
    case 'drive':
      return `Drive ${road.drive.leastMinutes} min at least. ${driveWords(road.drive)}`;
    case 'read-charging':
      return road.charging === 'unread'
        ? 'Nobody drives yet: whether it charges was not read.'
        : 'Nobody drives yet: raise the revs for five minutes, lights on, and read again.';
    case 'do-not-drive':
      return `Do not drive: it does not charge. Tow it. On its battery as it is it runs ${runDownWords(road.asItIs)}; on a charged one ${runDownWords(road.charged)}.`;
    case undefined:
      return null;
  }
}
