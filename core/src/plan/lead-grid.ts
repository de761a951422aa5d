import { type Conductor, conductorOhms, CONDUCTORS, leadHeatCapacity, type LeadSet } from '../leads/index.js';
import { type Population, startShare } from '../belief/index.js';
import { afterWait, type PlanCase } from './plan-case.js';
import { crankPoint } from '../crank/index.js';

/** Sections and lengths that lead sets are sold in. */
export const GRID_SECTIONS_MM2 = [10, 16, 25, 35, 50] as const;
export const GRID_LENGTHS_M = [2, 3, 3.5, 4.5, 6] as const;

/** The effect of one lead set in this rescue. */
export interface LeadCell {
  readonly sectionMm2: number;
  readonly lengthM: number;
  readonly conductor: Conductor;
  readonly starterVolts: number;
  readonly rpm: number;
  readonly lossVolts: number;
  /** Warming of the conductors over one try of the longest usual length, degC. */
  readonly riseC: number;
  readonly odds: number;
}

/** A full-length try, seconds. */
export const GRID_TRY_SECONDS = 10;

/**
 * Warming of a set's two conductors in `seconds` at `amps`, before the air takes any, degC.
 *
 * @example leadRiseC({ sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' }, 200, 10, 20) // => 3.2
 */
export function leadRiseC(leads: LeadSet, amps: number, seconds: number, tempC: number): number {
  return (amps ** 2 * 2 * conductorOhms(leads, tempC) * seconds) / leadHeatCapacity(leads);
}

/**
 * The grid of section, length and material for one rescue, clamps as they are. The same machines in all cells, so that they differ by
 * their copper alone.
 *
 * @returns null when the case has no leads, or when stopped
 */
export function leadGrid(
  plan: PlanCase,
  population: Population,
  onProgress: (share: number) => boolean = () => true,
): LeadCell[] | null {
  const { leads } = plan.rescue;
  if (!leads) return null;
  const cells: LeadCell[] = [];
  const all = CONDUCTORS.length * GRID_SECTIONS_MM2.length * GRID_LENGTHS_M.length;
  for (const conductor of CONDUCTORS) {
    for (const sectionMm2 of GRID_SECTIONS_MM2) {
      for (const lengthM of GRID_LENGTHS_M) {
        const set: LeadSet = { ...leads, ohmsFactor: 1, conductor, sectionMm2, lengthM };
        const moment = afterWait({ ...plan, rescue: { ...plan.rescue, leads: set } });
        const point = crankPoint(moment.rescue, plan.engine);
        cells.push({
          sectionMm2,
          lengthM,
          conductor,
          starterVolts: point.starterVolts,
          rpm: point.rpm,
          lossVolts: point.leadLossVolts,
          riseC: leadRiseC(set, point.sourceAmps, GRID_TRY_SECONDS, plan.rescue.tempC),
          odds: startShare(moment, plan.engine, population),
        });
        if (!onProgress(cells.length / all)) return null;
      }
    }
  }
  return cells;
}
