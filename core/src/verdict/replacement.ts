import {
  type BatteryRating,
  CCA_STANDARDS,
  type CcaStandard,
  type Chemistry,
  convertCca,
} from '../battery/index.js';
import type { Machine, TerminalLayout } from '../machine/index.js';

/** The least that a new battery must be. */
export interface ReplacementNeed {
  /** Any of these: the original's, and those that stand more. */
  readonly chemistries: readonly Chemistry[];
  readonly capacityAh: number;
  /** Not below the original, by every standard that may be printed on it. */
  readonly ccaAmps: Readonly<Record<CcaStandard, number>>;
  readonly layout: TerminalLayout;
  readonly ventHose: boolean;
  /** A string's batteries age together: both are changed, or the new one starves with the old. */
  readonly bothOfString: boolean;
  /** Memories that would be lost. */
  readonly memoryKeeper: boolean;
}

/** Chemistries that may stand in for each: never less than the original. */
const STAND_INS: Record<Chemistry, readonly Chemistry[]> = {
  flooded: ['flooded', 'efb', 'agm'],
  efb: ['efb', 'agm'],
  agm: ['agm'],
  gel: ['gel', 'agm'],
  lfp: ['lfp'],
  capacitor: ['capacitor'],
};

/** Returns the battery to fit in the place of this one. @throws RangeError for a battery the machine does not have */
export function replacementNeed(machine: Machine, at: number): ReplacementNeed {
  const battery = machine.batteries[at];
  if (!battery) throw new RangeError(`${machine.id} has no battery ${at}`);
  const { chemistry, capacityAh, ccaAmps, ccaStandard } = battery.rating;
  return {
    // Gas from a flooded battery has nowhere to go where no hose leads it out.
    chemistries: STAND_INS[chemistry],
    capacityAh,
    ccaAmps: Object.fromEntries(
      CCA_STANDARDS.map((standard) => [standard, Math.ceil(convertCca(ccaAmps, ccaStandard, standard))]),
    ) as Record<CcaStandard, number>,
    layout: battery.layout,
    ventHose: battery.ventHose,
    bothOfString: machine.batteries.length > 1,
    memoryKeeper: machine.resets.length > 0,
  };
}

/** Why a battery does not fit in the place of another. */
export const MISFITS = ['chemistry', 'capacity', 'cca'] as const;
export type Misfit = (typeof MISFITS)[number];

/** How far under the original's capacity still counts as the same size. */
const CAPACITY_TOLERANCE = 0.95;

/** Returns the faults of fitting this battery there; empty when there are none. */
export function misfitsOf(need: ReplacementNeed, rating: BatteryRating): Misfit[] {
  return [
    ...(need.chemistries.includes(rating.chemistry) ? [] : ['chemistry' as const]),
    ...(rating.capacityAh < need.capacityAh * CAPACITY_TOLERANCE ? ['capacity' as const] : []),
    ...(rating.ccaAmps < need.ccaAmps[rating.ccaStandard] ? ['cca' as const] : []),
  ];
}
