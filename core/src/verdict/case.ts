import type { Chemistry } from '../battery/chemistry.js';
import { socFromRestVolts } from '../battery/rest-volts.js';
import type { StopCondition } from '../diagnosis/vocabulary.js';

/** What the verdict must know beside the evidence. */
export interface Case {
  readonly chemistry: Chemistry;
  readonly systemVolts: 12 | 24;
  readonly wakes: boolean;
  readonly tempC: number;
  readonly stops: readonly StopCondition[];
  /** From the chassis side up; null where not read. */
  readonly restVolts: readonly (number | null)[];
  /** Other flat calls of this machine within the repeat window. */
  readonly earlierFlatCalls: number;
  /** The low-voltage block of a machine that wakes was found dead: no doors, no lamps. */
  readonly diedInService: boolean;
}

/** Charge of the weakest block that was read; null when none was. */
export function lowestSoc({
  chemistry,
  restVolts,
  tempC,
}: Pick<Case, 'chemistry' | 'restVolts' | 'tempC'>): number | null {
  const read = restVolts.filter((v) => v !== null);
  return read.length === 0 ? null : Math.min(...read.map((v) => socFromRestVolts(chemistry, v, tempC).soc));
}
