import type { BlockRating, MachineBlock, MachinePoint, PlanPoint, PointKind } from '@voltrek/core';

/** A point of a machine, tersely. */
export function point(
  id: string,
  kind: PointKind,
  label: string,
  at: readonly [xMm: number, yMm: number],
  steps: readonly string[],
  block?: number,
): MachinePoint {
  return { id, kind, label, xMm: at[0], yMm: at[1], steps, ...(block !== undefined && { block }) };
}

/** A block where it sits, `at` its front left corner. */
export function blockAt(
  rating: BlockRating,
  place: string,
  at: readonly [xMm: number, yMm: number],
  size: readonly [widthMm: number, lengthMm: number],
  closedIn = false,
): MachineBlock {
  return {
    rating,
    place,
    closedIn,
    rect: { xMm: at[0], yMm: at[1], widthMm: size[0], lengthMm: size[1] },
  };
}

/** The two terminals of a block, inside its rectangle. */
export function terminals(
  block: MachineBlock,
  index: number,
  name: string,
  steps: readonly string[],
): MachinePoint[] {
  const { xMm, yMm, widthMm, lengthMm } = block.rect;
  const middle = yMm + lengthMm / 2;
  const suffix = index === 0 ? '' : String(index + 1);
  const plus: PlanPoint = { xMm: xMm + widthMm * 0.2, yMm: middle };
  const minus: PlanPoint = { xMm: xMm + widthMm * 0.8, yMm: middle };
  return [
    { id: `block-plus${suffix}`, kind: 'block-positive', label: `${name} +`, ...plus, steps, block: index },
    { id: `block-minus${suffix}`, kind: 'block-negative', label: `${name} -`, ...minus, steps, block: index },
  ];
}
