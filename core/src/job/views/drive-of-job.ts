import { type DriveCharge, driveMinutes, startCostAh } from '../../charging/index.js';
import { DRAW_SHARE } from '../../machine/index.js';
import type { Job } from '../job.js';
import type { Situation } from '../situation.js';

/** Current that a car's alternator has left for its battery on the road, beyond lamps, blower and heated screen, A. */
export const ROAD_SPARE_AMPS = 30;
/** Charge at which a battery is out of harm's way, as a fraction of full. */
export const DRIVE_TARGET_SOC = 0.75;

export interface DriveAdvice extends DriveCharge {
  /** The house's least, or what the start itself took if that is longer. */
  readonly leastMinutes: number;
}

/** How long to drive after a start, from the charge that was read and what the tries took; null for a machine that wakes. */
export function driveOfJob(
  job: Pick<Job, 'attempts' | 'plan'>,
  { machine, batteries, tempC, rules }: Situation,
): DriveAdvice | null {
  const rating = machine.batteries[0]?.rating;
  if (!machine.engine || !rating) return null;
  const seconds = job.attempts.reduce((sum, a) => sum + (a.seconds ?? 0), 0);
  const startAh = startCostAh(job.plan?.starterAmps ?? 0, seconds);
  const soc = Math.min(...batteries.socs, DRIVE_TARGET_SOC);
  const spareAmps = ROAD_SPARE_AMPS * DRAW_SHARE[machine.machineClass];
  const drive = driveMinutes(rating, soc, DRIVE_TARGET_SOC, spareAmps, startAh, tempC);
  return { ...drive, leastMinutes: Math.ceil(Math.max(rules.driveMinutesLeast, drive.startMinutes)) };
}
