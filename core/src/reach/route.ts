import {
  cross,
  distance,
  distanceToEdge,
  hullOf,
  isInside,
  type Polygon,
  sidesOf,
  type Spot,
  parameter,
} from '../quantities/index.js';
import { type Machine, type MachinePoint, rectCorners, spotOf, type Zone } from '../machine/index.js';
import { placedOutline, placedPoint, type Pose } from './pose.js';

/** A lead lies this far off the bodywork it goes round, mm. */
const OFF_BODY_MM = 40;
/** Places on the edge of a body where a lead may leave it lie this far apart, mm. */
const EXIT_STEP_MM = 160;
/** Ways out farther than this beyond the nearest are not looked at, mm. */
const EXIT_MARGIN_MM = 1500;
/** A lead laid by hand is never taut: share more than the drawn line. */
export const SLACK_SHARE = parameter(0.1, {
  id: 'reach.slack',
  name: 'slack of a laid lead',
  low: 0.05,
  high: 0.25,
  unit: 'of the line',
  reason: 'Laid by hand, never taut.',
});
/** Up from the clamp over the edge of a bay and down again, metres at each end. */
export const END_METRES = parameter(0.25, {
  id: 'reach.ends',
  name: 'over the edge of a bay',
  low: 0.1,
  high: 0.5,
  unit: 'm at each end',
  reason: 'Up from the clamp and down outside.',
});

/** One lead as it would lie. */
export interface LeadRoute {
  /** In the casualty's plan, mm, from the donor's point to the casualty's. */
  readonly line: readonly Spot[];
  /** Metres of lead it takes, with slack and the way over the bay's edge. */
  readonly metres: number;
  /** A hot or moving part that it could not be laid around; null when it lies clear. */
  readonly crosses: Zone['kind'] | null;
}

interface Body {
  /** Its outline without dents: a lead does not follow a dent. */
  readonly hull: Polygon;
  readonly point: Spot;
  readonly zones: readonly { readonly kind: Zone['kind']; readonly figure: Polygon }[];
}

/**
 * How a lead would lie between a point of the donor and one of the casualty: out of each body by a short way clear of hot and moving parts,
 * then round the bodywork. The shortest such line, found on the graph of what sees what.
 */
export function routeLead(
  casualty: Machine,
  casualtyPoint: MachinePoint,
  donor: Machine,
  donorPoint: MachinePoint,
  pose: Pose,
): LeadRoute {
  const bodies: readonly [Body, Body] = [
    {
      hull: hullOf(placedOutline(donor, pose)),
      point: placedPoint(donor, pose, donorPoint),
      zones: donor.zones.map(({ kind, rect }) => ({
        kind,
        figure: rectCorners(rect).map(({ x, y }) => placedPoint(donor, pose, { xMm: x, yMm: y })),
      })),
    },
    {
      hull: hullOf(casualty.outline.map(spotOf)),
      point: spotOf(casualtyPoint),
      zones: casualty.zones.map(({ kind, rect }) => ({ kind, figure: rectCorners(rect) })),
    },
  ];
  const clear = shortest(bodies, true);
  const line = clear ?? shortest(bodies, false) ?? [bodies[0].point, bodies[1].point];
  const drawn = line.slice(1).reduce((sum, spot, i) => sum + distance(line[i]!, spot), 0) / 1000;
  const rise = Math.abs((casualtyPoint.heightMm ?? 0) - (donorPoint.heightMm ?? 0)) / 1000;
  const heights = casualtyPoint.heightMm !== undefined && donorPoint.heightMm !== undefined ? rise : 0;
  return {
    line,
    metres: Math.hypot(drawn, heights) * (1 + SLACK_SHARE) + 2 * END_METRES,
    crosses: clear ? null : crossedZone(bodies, line),
  };
}

function crossedZone(bodies: readonly Body[], line: readonly Spot[]): Zone['kind'] | null {
  const stretches = line.slice(1).map((spot, i) => [line[i]!, spot] as const);
  const hit = bodies
    .flatMap((body) => body.zones)
    .find(({ figure }) => stretches.some(([a, b]) => crossesFigure(a, b, figure)));
  return hit?.kind ?? null;
}

function crossesFigure(a: Spot, b: Spot, figure: Polygon): boolean {
  return isInside(figure, a) || isInside(figure, b) || sidesOf(figure).some(([c, d]) => cross(a, b, c, d));
}

/** A stretch outside: it may touch a body but not go through it. */
function isOutside(a: Spot, b: Spot, bodies: readonly Body[]): boolean {
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  return bodies.every(
    ({ hull }) => !isInside(hull, middle) && !sidesOf(hull).some(([c, d]) => cross(a, b, c, d)),
  );
}

/** Corners that a lead may bend round, and places where it may leave, a little off the body. */
function around({ hull }: Body): { corners: Spot[]; exits: Spot[] } {
  const middle = {
    x: hull.reduce((sum, s) => sum + s.x, 0) / hull.length,
    y: hull.reduce((sum, s) => sum + s.y, 0) / hull.length,
  };
  const off = (spot: Spot): Spot => {
    const span = distance(spot, middle) || 1;
    const share = (span + OFF_BODY_MM) / span;
    return { x: middle.x + (spot.x - middle.x) * share, y: middle.y + (spot.y - middle.y) * share };
  };
  const exits = sidesOf(hull).flatMap(([a, b]) => {
    const count = Math.max(1, Math.round(distance(a, b) / EXIT_STEP_MM));
    return Array.from({ length: count }, (_, i) => {
      const share = (i + 0.5) / count;
      return off({ x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share });
    });
  });
  return { corners: hull.map(off), exits };
}

/** The shortest line from the first body's point to the second's; null when every way out crosses a zone. */
function shortest(bodies: readonly [Body, Body], avoidZones: boolean): Spot[] | null {
  const places = bodies.map(around);
  const zones = avoidZones ? bodies.flatMap((body) => body.zones) : [];
  const ways = bodies.map((body, i) => {
    const nearest = isInside(body.hull, body.point) ? distanceToEdge(body.hull, body.point) : 0;
    return places[i]!.exits.filter(
      (exit) =>
        distance(exit, body.point) < nearest + EXIT_MARGIN_MM &&
        !zones.some(({ figure }) => crossesFigure(body.point, exit, figure)),
    );
  });
  if (ways.some((list) => list.length === 0)) return null;
  // Nodes: start, its ways out, corners of both bodies, the other's ways out, end.
  const [from, to] = ways as [Spot[], Spot[]];
  const middleNodes = [...from, ...places.flatMap((p) => p.corners), ...to];
  const start = bodies[0].point;
  const end = bodies[1].point;
  const best = middleNodes.map((spot, i) => (i < from.length ? distance(start, spot) : Infinity));
  const before = middleNodes.map(() => -1);
  const done = middleNodes.map(() => false);
  const firstTo = middleNodes.length - to.length;
  let least = Infinity;
  let last = -1;
  for (;;) {
    let at = -1;
    for (let i = 0; i < best.length; i++) if (!done[i] && (at < 0 || best[i]! < best[at]!)) at = i;
    if (at < 0 || best[at]! >= least) break;
    done[at] = true;
    const spot = middleNodes[at]!;
    if (at >= firstTo && best[at]! + distance(spot, end) < least) {
      least = best[at]! + distance(spot, end);
      last = at;
    }
    for (let i = from.length; i < middleNodes.length; i++) {
      if (done[i]) continue;
      const there = best[at]! + distance(spot, middleNodes[i]!);
      if (there < best[i]! && isOutside(spot, middleNodes[i]!, bodies)) {
        best[i] = there;
        before[i] = at;
      }
    }
  }
  if (last < 0) return null;
  const line = [end];
  for (let at = last; at >= 0; at = before[at]!) line.unshift(middleNodes[at]!);
  return [start, ...line];
}
