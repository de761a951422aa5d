import type { BatteryRating } from '@voltrek/core/battery';
import type { MachineBattery, MachinePoint, PlanPoint, PointKind, Zone } from '@voltrek/core/machine';

type Reach = Pick<MachinePoint, 'heightMm' | 'cover' | 'tools'>;

/** A point of a machine, tersely. */
export function point(
  id: string,
  kind: PointKind,
  label: string,
  at: readonly [xMm: number, yMm: number, heightMm?: number],
  steps: readonly string[],
  reach: Reach = {},
): MachinePoint {
  const [xMm, yMm, heightMm] = at;
  return { id, kind, label, xMm, yMm, steps, ...(heightMm !== undefined && { heightMm }), ...reach };
}

/** A battery where it sits, `at` its front left corner and the height of its top. */
export function batteryAt(
  rating: BatteryRating,
  place: string,
  at: readonly [xMm: number, yMm: number, topMm: number],
  size: readonly [widthMm: number, lengthMm: number],
  more: Partial<Pick<MachineBattery, 'closedIn' | 'ventHose' | 'layout'>> = {},
): MachineBattery {
  return {
    rating,
    place,
    layout: 'positive-left',
    closedIn: false,
    ventHose: false,
    ...more,
    topMm: at[2],
    rect: { xMm: at[0], yMm: at[1], widthMm: size[0], lengthMm: size[1] },
  };
}

/** The two terminals of a battery, inside its rectangle. */
export function terminals(
  battery: MachineBattery,
  index: number,
  name: string,
  steps: readonly string[],
  reach: Reach = {},
): MachinePoint[] {
  const { xMm, yMm, widthMm, lengthMm } = battery.rect;
  const isLeft = battery.layout === 'positive-left';
  const middle = yMm + lengthMm / 2;
  const suffix = index === 0 ? '' : String(index + 1);
  const plus: PlanPoint = { xMm: xMm + widthMm * (isLeft ? 0.2 : 0.8), yMm: middle };
  const minus: PlanPoint = { xMm: xMm + widthMm * (isLeft ? 0.8 : 0.2), yMm: middle };
  const common = { steps, battery: index, heightMm: battery.topMm, ...reach };
  return [
    { id: `battery-plus${suffix}`, kind: 'battery-positive', label: `${name} +`, ...plus, ...common },
    { id: `battery-minus${suffix}`, kind: 'battery-negative', label: `${name} -`, ...minus, ...common },
  ];
}

/** A part that no lead may cross. */
export function zone(
  kind: Zone['kind'],
  label: string,
  at: readonly [xMm: number, yMm: number],
  size: readonly [widthMm: number, lengthMm: number],
): Zone {
  return { kind, label, rect: { xMm: at[0], yMm: at[1], widthMm: size[0], lengthMm: size[1] } };
}

export const rating = (
  chemistry: BatteryRating['chemistry'],
  capacityAh: number,
  ccaAmps: number,
  ccaStandard: BatteryRating['ccaStandard'] = 'EN',
): BatteryRating => ({ chemistry, capacityAh, ccaAmps, ccaStandard });
