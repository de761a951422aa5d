import type { Road } from '@voltrek/core/job';
import type { RunDown } from '@voltrek/core/charging';
import type { MachineClass } from '@voltrek/core/machine';
import { messagesOf } from './messages-of';
import { minutesWords } from './way-words';
import { driveWords } from './words';

const RUN_DOWN = messagesOf('runDown');
const ROAD = messagesOf('road');

/** How long it runs on a battery that nothing charges, with the consumers of its class. */
export function runDownWords({ lampsMinutes, allOnMinutes }: RunDown, machineClass: MachineClass): string {
  if (lampsMinutes < 1) return RUN_DOWN.none;
  const lamps = minutesWords(lampsMinutes);
  return machineClass === 'motorcycle'
    ? RUN_DOWN.motorcycle({ lamps })
    : RUN_DOWN.time({ lamps, all: minutesWords(allOnMinutes) });
}

/** Words of the advice on driving; null where there is none. */
export function roadWords(road: Road | null, machineClass: MachineClass): string | null {
  switch (road?.kind) {
    case 'drive':
      return ROAD.drive({ minutes: road.drive.leastMinutes, drive: driveWords(road.drive) });
    case 'read-charging':
      return road.charging === 'unread' ? ROAD.unread : ROAD.readAgain;
    case 'do-not-drive':
      return ROAD.doNotDrive({
        asItIs: runDownWords(road.asItIs, machineClass),
        charged: runDownWords(road.charged, machineClass),
      });
    case undefined:
      return null;
  }
}
