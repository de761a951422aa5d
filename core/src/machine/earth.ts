import type { Machine, PointKind } from './machine.js';

/**
 * True for a machine whose plus is on its body.
 *
 * @example isPositiveEarth({ earth: 'positive' }) // => true
 */
export const isPositiveEarth = ({ earth }: Pick<Machine, 'earth'>): boolean => earth === 'positive';

const OTHER_POST: Partial<Record<PointKind, PointKind>> = {
  'battery-positive': 'battery-negative',
  'battery-negative': 'battery-positive',
};

/**
 * The machine as its circuit is wired: a machine with its plus on the body is the mirror image of the usual one. Each current is the same
 * the other way round. So it is solved as that image, in which the post away from the body is the plus. Others are given back as they are.
 */
export function asWired(machine: Machine): Machine {
  if (!isPositiveEarth(machine)) return machine;
  return {
    ...machine,
    earth: undefined,
    points: machine.points.map((point) => ({ ...point, kind: OTHER_POST[point.kind] ?? point.kind })),
  };
}
