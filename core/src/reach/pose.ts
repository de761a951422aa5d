import { type Machine, type PlanPoint, spotOf } from '../machine/index.js';
import { gapBetween, type Polygon, type Spot } from '../quantities/index.js';

/** How a donor stands in the casualty's plan: the middle of its body, and how far it is turned clockwise from the casualty's own heading. */
export interface Pose {
  readonly xMm: number;
  readonly yMm: number;
  readonly turnedDeg: number;
}

/** Vehicles closer than this count as touching: doors, bumpers and hands need the room, mm. */
export const LEAST_GAP_MM = 150;
/** How close a donor is parked when there is a choice, mm: near, and room to walk between with the handbrakes on. */
export const USUAL_GAP_MM = 600;

/** Returns the place of a donor's point in the casualty's plan, mm. */
export function placedPoint(donor: Machine, pose: Pose, point: PlanPoint): Spot {
  const turn = (pose.turnedDeg * Math.PI) / 180;
  const x = point.xMm - donor.widthMm / 2;
  const y = point.yMm - donor.lengthMm / 2;
  return {
    x: pose.xMm + x * Math.cos(turn) - y * Math.sin(turn),
    y: pose.yMm + x * Math.sin(turn) + y * Math.cos(turn),
  };
}

/** The donor's outline as it stands in the casualty's plan. */
export function placedOutline(donor: Machine, pose: Pose): Polygon {
  return donor.outline.map((point) => placedPoint(donor, pose, point));
}

/** Millimetres between the two bodies; 0 when they touch. */
export function gapMm(casualty: Machine, donor: Machine, pose: Pose): number {
  return gapBetween(casualty.outline.map(spotOf), placedOutline(donor, pose));
}

export const ARRANGEMENTS = [
  'nose-to-nose',
  'left-side',
  'right-side',
  'nose-in-left',
  'nose-in-right',
  'behind',
] as const;
/** Usual ways to park a donor. */
export type Arrangement = (typeof ARRANGEMENTS)[number];

/** The pose of a usual arrangement, the usual gap between the bodies. */
export function poseFor(arrangement: Arrangement, casualty: Machine, donor: Machine, shiftMm = 0): Pose {
  const middle = casualty.widthMm / 2;
  const half = donor.lengthMm / 2;
  const beside = donor.widthMm / 2 + USUAL_GAP_MM;
  switch (arrangement) {
    case 'nose-to-nose':
      return { xMm: middle + shiftMm, yMm: -USUAL_GAP_MM - half, turnedDeg: 180 };
    case 'behind':
      return { xMm: middle + shiftMm, yMm: casualty.lengthMm + USUAL_GAP_MM + half, turnedDeg: 0 };
    case 'left-side':
      return { xMm: -beside, yMm: half + shiftMm, turnedDeg: 0 };
    case 'right-side':
      return { xMm: casualty.widthMm + beside, yMm: half + shiftMm, turnedDeg: 0 };
    case 'nose-in-left':
      return { xMm: -USUAL_GAP_MM - half, yMm: casualty.lengthMm * 0.2 + shiftMm, turnedDeg: 90 };
    case 'nose-in-right':
      return {
        xMm: casualty.widthMm + USUAL_GAP_MM + half,
        yMm: casualty.lengthMm * 0.2 + shiftMm,
        turnedDeg: -90,
      };
  }
}
