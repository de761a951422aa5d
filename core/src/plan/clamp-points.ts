import type { Terminal } from '../circuit/index.js';
import {
  type Machine,
  type MachinePoint,
  metresToNearestBattery,
  type PointKind,
  pointOf,
  pointOn,
} from '../machine/index.js';
import type { HouseRules } from '../rules/index.js';

/** The part of the casualty that a source is put across: the whole string, or one battery of it. */
export type Across = { readonly kind: 'whole' } | { readonly kind: 'battery'; readonly battery: number };

/**
 * The casualty's points that the red and the black clamp go on. A post is kinder than a battery's own terminal; the stud of the starter is
 * taken where neither can be reached; the ground
 * point farthest from every battery keeps the last spark from the gas, unless the house rule says terminal. Across an upper battery of a string black must go on the joint
 * below it.
 *
 * @throws RangeError when the machine has no usable pair
 */
export function clampPoints(
  machine: Machine,
  across: Across,
  rules: HouseRules,
): { readonly red: MachinePoint; readonly black: MachinePoint } {
  const on = (kind: PointKind, battery?: number): MachinePoint | undefined => pointOn(machine, kind, battery);
  const top = machine.batteries.length - 1;
  const lower = across.kind === 'battery' ? across.battery : 0;
  const red =
    across.kind === 'battery'
      ? on('battery-positive', lower)
      : (on('red-post') ?? on('battery-positive', top) ?? on('starter-stud'));
  const ground = farthestGround(machine);
  const terminal = on('battery-negative', lower);
  const chassisSide = rules.lastBlack === 'ground-point' ? (ground ?? terminal) : (terminal ?? ground);
  const black = lower > 0 ? terminal : chassisSide;
  if (!red || !black) throw new RangeError(`${machine.id} has no place for the clamps`);
  return { red, black };
}

/** Of several ground points the one farthest from every battery: gas thins out with each hand's breadth. */
export function farthestGround(machine: Machine): MachinePoint | undefined {
  const grounds = machine.points.filter((p) => p.kind === 'ground-point');
  const metres = grounds.map((p) => metresToNearestBattery(machine, p));
  return grounds[metres.indexOf(Math.max(...metres))];
}

/** Electrical place of a casualty point. @throws RangeError for a point that takes no jump clamp */
export function terminalOf(machine: Machine, pointId: string): Terminal {
  const point = pointOf(machine, pointId);
  switch (point.kind) {
    case 'battery-positive':
      return { kind: 'plus', battery: point.battery ?? 0 };
    case 'battery-negative':
      return { kind: 'minus', battery: point.battery ?? 0 };
    case 'red-post':
      return { kind: 'post' };
    case 'starter-stud':
      return { kind: 'starter' };
    case 'ground-point':
      return { kind: 'body' };
    case 'release':
    case 'latch-wire-positive':
    case 'latch-wire-negative':
      throw new RangeError(`${pointId} takes no jump clamp`);
  }
}
