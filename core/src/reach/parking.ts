import type { Machine, MachinePoint } from '../machine/index.js';
import { ARRANGEMENTS, type Arrangement, gapMm, LEAST_GAP_MM, type Pose, poseFor } from './pose.js';
import { type LeadRoute, routeLead } from './route.js';

/** The points that the leads join. */
export interface LeadPoints {
  readonly casualtyRed: MachinePoint;
  readonly casualtyBlack: MachinePoint;
  readonly donorRed: MachinePoint;
  readonly donorBlack: MachinePoint;
}

/** The score of a way of parking. */
export interface Parking {
  readonly pose: Pose;
  readonly gapMm: number;
  /** The vehicles touch, or as good as: a current would run through the bodies, and a bump through the leads. */
  readonly touching: boolean;
  readonly red: LeadRoute;
  readonly black: LeadRoute;
  /** Both leads of a set are of one length, so the longer way decides, metres. */
  readonly metresNeeded: number;
}

/** The leads as they would lie with the donor standing so. */
export function parkingAt(casualty: Machine, donor: Machine, points: LeadPoints, pose: Pose): Parking {
  const red = routeLead(casualty, points.casualtyRed, donor, points.donorRed, pose);
  const black = routeLead(casualty, points.casualtyBlack, donor, points.donorBlack, pose);
  const gap = gapMm(casualty, donor, pose);
  return {
    pose,
    gapMm: gap,
    touching: gap < LEAST_GAP_MM,
    red,
    black,
    metresNeeded: Math.max(red.metres, black.metres),
  };
}

/** How far along a side the donor may be shifted to bring its points nearer, mm. */
const SHIFTS_MM = [0, -600, 600, -1200, 1200] as const;

/**
 * The arrangement with the least lead that touches nothing. It avoids hot and moving parts where it can.
 *
 * @param arrangements those that the place leaves room for
 */
export function bestParking(
  casualty: Machine,
  donor: Machine,
  points: LeadPoints,
  arrangements: readonly Arrangement[] = ARRANGEMENTS,
): Parking & { readonly arrangement: Arrangement } {
  const tried = arrangements.flatMap((arrangement) =>
    SHIFTS_MM.map((shift) => ({
      arrangement,
      ...parkingAt(casualty, donor, points, poseFor(arrangement, casualty, donor, shift)),
    })),
  );
  const isWorse = (p: Parking): number =>
    Number(p.touching) * 2 + Number((p.red.crosses ?? p.black.crosses) !== null);
  return tried.sort((a, b) => isWorse(a) - isWorse(b) || a.metresNeeded - b.metresNeeded)[0]!;
}
