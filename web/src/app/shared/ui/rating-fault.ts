import { BATTERY_RANGES, type BatteryRating } from '@voltrek/core/battery';
import { outOfRange } from '@words/range-words';
import { RATING_FAULT as T } from '@words/screens/ui';

/** Why a typed rating can be no battery's; null when it can. */
export function ratingFault({ capacityAh, ccaAmps }: BatteryRating): string | null {
  return (
    outOfRange(T.capacity, capacityAh, BATTERY_RANGES.capacityAh) ??
    outOfRange(T.ccaAmps, ccaAmps, BATTERY_RANGES.ccaAmps)
  );
}
