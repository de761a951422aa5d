import { BATTERY_RANGES, type BatteryRating } from '@voltrek/core/battery';
import { outOfRange } from '@voltrek/core/quantities';

/** Why a typed rating can be no battery's; null when it can. */
export function ratingFault({ capacityAh, ccaAmps }: BatteryRating): string | null {
  return (
    outOfRange('Capacity', capacityAh, BATTERY_RANGES.capacityAh) ??
    outOfRange('Cold-cranking amps', ccaAmps, BATTERY_RANGES.ccaAmps)
  );
}
