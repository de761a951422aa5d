import {
  areaOf,
  corners,
  crossesItself,
  distanceToEdge,
  isInside,
  type Polygon,
  type Spot,
} from '../quantities/index.js';
import type { Machine, PlanPoint, PlanRect } from './machine.js';

/** Points and batteries may stand this far out of the body: latch wires at a bumper, a box on a rail, mm. */
const OUTSIDE_MM = 120;
/** A battery may lie this far over another before they are drawn in one place, mm. */
const OVERLAP_MM = 5;
/** No body is smaller, mm2. */
const LEAST_AREA_MM2 = 50_000;

export const GEOMETRY_FAULTS = [
  'outline-open',
  'outline-crosses-itself',
  'outline-outside-size',
  'side-open',
  'side-crosses-itself',
  'point-outside',
  'battery-outside',
  'zone-outside',
  'batteries-overlap',
] as const;
export type GeometryFaultCode = (typeof GEOMETRY_FAULTS)[number];

/** Something in a machine's drawing that cannot be so. */
export interface GeometryFault {
  readonly code: GeometryFaultCode;
  /** Path of the fault: `points[2]`, `outline`. */
  readonly path: string;
}

export const spotOf = ({ xMm, yMm }: PlanPoint): Spot => ({ x: xMm, y: yMm });
export const rectCorners = ({ xMm, yMm, widthMm, lengthMm }: PlanRect): Spot[] =>
  corners(xMm, yMm, widthMm, lengthMm);

/** Everything in a machine's drawing that cannot be so; empty for a sound entry. */
export function geometryFaults(machine: Machine): GeometryFault[] {
  const faults: GeometryFault[] = [];
  const fault = (code: GeometryFaultCode, path: string): number => faults.push({ code, path });
  const outline = machine.outline.map(spotOf);
  checkFigure(outline, 'outline', fault);
  const isBeyond = ({ x, y }: Spot): boolean =>
    x < -OUTSIDE_MM ||
    y < -OUTSIDE_MM ||
    x > machine.widthMm + OUTSIDE_MM ||
    y > machine.lengthMm + OUTSIDE_MM;
  if (outline.some(isBeyond)) fault('outline-outside-size', 'outline');
  if (machine.side)
    checkFigure(
      machine.side.outline.map(({ yMm, zMm }) => ({ x: yMm, y: zMm })),
      'side',
      fault,
    );
  if (outline.length >= 3) checkPlaces(machine, outline, fault);
  machine.batteries.forEach(({ rect }, i) => {
    if (machine.batteries.slice(0, i).some((other) => lieOver(other.rect, rect)))
      fault('batteries-overlap', `batteries[${i}]`);
  });
  return faults;
}

type Tell = (code: GeometryFaultCode, path: string) => void;

function checkFigure(figure: Polygon, name: 'outline' | 'side', fault: Tell): void {
  if (figure.length < 3 || areaOf(figure) < LEAST_AREA_MM2) fault(`${name}-open`, name);
  else if (crossesItself(figure)) fault(`${name}-crosses-itself`, name);
}

function checkPlaces(machine: Machine, outline: Polygon, fault: Tell): void {
  const isOut = (spot: Spot): boolean =>
    !isInside(outline, spot) && distanceToEdge(outline, spot) > OUTSIDE_MM;
  machine.points.forEach((point, i) => {
    if (isOut(spotOf(point))) fault('point-outside', `points[${i}]`);
  });
  machine.batteries.forEach(({ rect }, i) => {
    if (rectCorners(rect).some(isOut)) fault('battery-outside', `batteries[${i}]`);
  });
  machine.zones.forEach(({ rect }, i) => {
    if (rectCorners(rect).some(isOut)) fault('zone-outside', `zones[${i}]`);
  });
}

function lieOver(a: PlanRect, b: PlanRect): boolean {
  const wide = Math.min(a.xMm + a.widthMm, b.xMm + b.widthMm) - Math.max(a.xMm, b.xMm);
  const long = Math.min(a.yMm + a.lengthMm, b.yMm + b.lengthMm) - Math.max(a.yMm, b.yMm);
  return wide > OVERLAP_MM && long > OVERLAP_MM;
}
