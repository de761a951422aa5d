import type { Terminal } from '../circuit/rescue.js';
import { type Machine, type MachinePoint, pointOf } from '../machine/machine.js';
import type { HouseRules } from '../rules/house-rules.js';

/** Which part of the casualty a source is put across: the whole string, or one block of it. */
export type Across = { readonly kind: 'whole' } | { readonly kind: 'block'; readonly block: number };

/**
 * The casualty's points that the red and the black clamp bite. A post is kinder than a block's own terminal; a ground point keeps
 * the last spark from the gas, unless the house rule says terminal. Across an upper block of a string black must go on the joint
 * below it.
 *
 * @throws RangeError when the machine has no usable pair
 */
export function clampPoints(
  machine: Machine,
  across: Across,
  rules: HouseRules,
): { readonly red: MachinePoint; readonly black: MachinePoint } {
  const on = (kind: MachinePoint['kind'], block?: number): MachinePoint | undefined =>
    machine.points.find((p) => p.kind === kind && (block === undefined || (p.block ?? 0) === block));
  const top = machine.blocks.length - 1;
  const lower = across.kind === 'block' ? across.block : 0;
  const red =
    across.kind === 'block' ? on('block-positive', lower) : (on('red-post') ?? on('block-positive', top));
  const ground = on('ground-point');
  const terminal = on('block-negative', lower);
  const chassisSide = rules.lastBlack === 'ground-point' ? (ground ?? terminal) : (terminal ?? ground);
  const black = lower > 0 ? terminal : chassisSide;
  if (!red || !black) throw new RangeError(`${machine.id} has no place for the clamps`);
  return { red, black };
}

/** Electrical place of a casualty point. @throws RangeError for a point that takes no jump clamp */
export function terminalOf(machine: Machine, pointId: string): Terminal {
  const point = pointOf(machine, pointId);
  switch (point.kind) {
    case 'block-positive':
      return { kind: 'plus', block: point.block ?? 0 };
    case 'block-negative':
      return { kind: 'minus', block: point.block ?? 0 };
    case 'red-post':
      return { kind: 'post' };
    case 'ground-point':
      return { kind: 'body' };
    case 'release':
    case 'latch-wire-positive':
    case 'latch-wire-negative':
      throw new RangeError(`${pointId} takes no jump clamp`);
  }
}
