import type { BlockRating, MachineBlock, MachinePoint, PlanPoint, PointKind, Zone } from '@voltrek/core';

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

/** A block where it sits, `at` its front left corner and the height of its top. */
export function blockAt(
  rating: BlockRating,
  place: string,
  at: readonly [xMm: number, yMm: number, topMm: number],
  size: readonly [widthMm: number, lengthMm: number],
  more: Partial<Pick<MachineBlock, 'closedIn' | 'ventHose' | 'layout'>> = {},
): MachineBlock {
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

/** The two terminals of a block, inside its rectangle. */
export function terminals(
  block: MachineBlock,
  index: number,
  name: string,
  steps: readonly string[],
  reach: Reach = {},
): MachinePoint[] {
  const { xMm, yMm, widthMm, lengthMm } = block.rect;
  const isLeft = block.layout === 'positive-left';
  const middle = yMm + lengthMm / 2;
  const suffix = index === 0 ? '' : String(index + 1);
  const plus: PlanPoint = { xMm: xMm + widthMm * (isLeft ? 0.2 : 0.8), yMm: middle };
  const minus: PlanPoint = { xMm: xMm + widthMm * (isLeft ? 0.8 : 0.2), yMm: middle };
  const common = { steps, block: index, heightMm: block.topMm, ...reach };
  return [
    { id: `block-plus${suffix}`, kind: 'block-positive', label: `${name} +`, ...plus, ...common },
    { id: `block-minus${suffix}`, kind: 'block-negative', label: `${name} -`, ...minus, ...common },
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
  chemistry: BlockRating['chemistry'],
  capacityAh: number,
  ccaAmps: number,
  ccaStandard: BlockRating['ccaStandard'] = 'EN',
): BlockRating => ({ chemistry, capacityAh, ccaAmps, ccaStandard });
