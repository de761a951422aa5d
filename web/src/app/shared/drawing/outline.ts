import type { XY } from './drawing';

/** Rounding of bodywork corners, drawing units. */
const CORNER = 16;

/** A closed outline with sharp corners. */
export function polygon(points: readonly XY[]): string {
  return `M${points.map(xy).join('L')}Z`;
}

function xy({ x, y }: XY): string {
  return `${x.toFixed(1)} ${y.toFixed(1)}`;
}

/** A closed outline with its corners rounded: each vertex becomes a curve between points on its two edges. */
export function rounded(points: readonly XY[], isSharp: (index: number) => boolean = () => false): string {
  const toward = (from: XY, to: XY): XY => {
    const span = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    const reach = Math.min(CORNER, span / 2) / span;
    return { x: from.x + (to.x - from.x) * reach, y: from.y + (to.y - from.y) * reach };
  };
  const corners = points.map((p, i) => {
    const before = points[(i + points.length - 1) % points.length]!;
    const after = points[(i + 1) % points.length]!;
    if (isSharp(i)) return { enter: p, p, leave: p };
    return { enter: toward(p, before), p, leave: toward(p, after) };
  });
  return `M${xy(corners[0]!.enter)}${corners.map((c) => `L${xy(c.enter)}Q${xy(c.p)} ${xy(c.leave)}`).join('')}Z`;
}
