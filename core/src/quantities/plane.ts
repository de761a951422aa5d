/** A spot in a plane, in whatever unit its maker uses throughout. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}
/** A closed figure: the last spot joins the first. */
export type Polygon = readonly Spot[];

/** The sides of a polygon. */
export function sidesOf(polygon: Polygon): (readonly [Spot, Spot])[] {
  return polygon.map((spot, i) => [spot, polygon[(i + 1) % polygon.length]!]);
}

/** Twice the area of the triangle a b c: positive when c lies to one side of the line, negative on the other. */
function turn(a: Spot, b: Spot, c: Spot): number {
  return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}

/**
 * Area, always positive.
 *
 * @example areaOf(corners(0, 0, 2, 3)) // => 6
 */
export function areaOf(polygon: Polygon): number {
  return Math.abs(sidesOf(polygon).reduce((sum, [a, b]) => sum + (a.x * b.y - b.x * a.y) / 2, 0));
}

/** True when two stretches cross properly: touching at an end or lying along one another does not count. */
export function cross(a: Spot, b: Spot, c: Spot, d: Spot): boolean {
  return turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0;
}

/** True when any two sides of the figure cross: it is no body that could be built. */
export function crossesItself(polygon: Polygon): boolean {
  const sides = sidesOf(polygon);
  return sides.some(([a, b], i) => sides.slice(i + 1).some(([c, d]) => cross(a, b, c, d)));
}

/**
 * True for a spot inside the figure. On its edge either answer may come.
 *
 * @example isInside(corners(0, 0, 2, 2), { x: 1, y: 1 }) // => true
 */
export function isInside(polygon: Polygon, spot: Spot): boolean {
  let inside = false;
  for (const [a, b] of sidesOf(polygon)) {
    if (a.y > spot.y === b.y > spot.y) continue;
    if (spot.x < a.x + ((b.x - a.x) * (spot.y - a.y)) / (b.y - a.y)) inside = !inside;
  }
  return inside;
}

/**
 * The spot of a stretch that is nearest to `spot`.
 *
 * @example nearestOn({ x: 0, y: 0 }, { x: 4, y: 0 }, { x: 1, y: 2 }) // => { x: 1, y: 0 }
 */
export function nearestOn(a: Spot, b: Spot, spot: Spot): Spot {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const square = dx * dx + dy * dy;
  const share = square === 0 ? 0 : ((spot.x - a.x) * dx + (spot.y - a.y) * dy) / square;
  const held = Math.min(1, Math.max(0, share));
  return { x: a.x + held * dx, y: a.y + held * dy };
}

/**
 * Returns the distance of two spots, in their unit.
 *
 * @example distance({ x: 0, y: 0 }, { x: 3, y: 4 }) // => 5
 */
export function distance(a: Spot, b: Spot): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}

/**
 * From a spot to the nearest part of the figure's edge.
 *
 * @example distanceToEdge(corners(0, 0, 4, 4), { x: 1, y: 2 }) // => 1
 */
export function distanceToEdge(polygon: Polygon, spot: Spot): number {
  return Math.min(...sidesOf(polygon).map(([a, b]) => distance(nearestOn(a, b, spot), spot)));
}

/**
 * Least distance between two figures; 0 when they touch or lie over one another.
 *
 * @example gapBetween(corners(0, 0, 1, 1), corners(3, 0, 1, 1)) // => 2
 */
export function gapBetween(one: Polygon, other: Polygon): number {
  if (isInside(one, other[0]!) || isInside(other, one[0]!)) return 0;
  if (sidesOf(one).some(([a, b]) => sidesOf(other).some(([c, d]) => cross(a, b, c, d)))) return 0;
  return Math.min(
    ...one.map((spot) => distanceToEdge(other, spot)),
    ...other.map((spot) => distanceToEdge(one, spot)),
  );
}

/** The tightest figure without dents around some spots. */
export function hullOf(spots: readonly Spot[]): Spot[] {
  const sorted = [...spots].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: readonly Spot[]): Spot[] => {
    const kept: Spot[] = [];
    for (const spot of list) {
      while (kept.length > 1 && turn(kept[kept.length - 2]!, kept[kept.length - 1]!, spot) <= 0) kept.pop();
      kept.push(spot);
    }
    return kept.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/**
 * The corners of a rectangle that stands along the axes.
 *
 * @example corners(0, 0, 2, 1)[2] // => { x: 2, y: 1 }
 */
export function corners(x: number, y: number, width: number, height: number): Spot[] {
  return [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ];
}
