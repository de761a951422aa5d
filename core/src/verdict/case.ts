import { batteryBar, type BatteryBar, type Chemistry, socFromRestVolts } from '../battery/index.js';
import { crankLimitVolts, type DiagnosisEvidence, type StopCondition } from '../diagnosis/index.js';
import type { HouseRules } from '../rules/index.js';

/** The facts of a verdict beside the evidence. */
export interface Case {
  readonly chemistry: Chemistry;
  readonly wakes: boolean;
  readonly tempC: number;
  /** The coldest its batteries have been, degC; left out: no colder than now. */
  readonly coldestC?: number;
  readonly stops: readonly StopCondition[];
  /** From the chassis side up; null where not read. */
  readonly restVolts: readonly (number | null)[];
  /** Other flat calls of this machine within the repeat window. */
  readonly earlierFlatCalls: number;
  /** These rest volts were read a day after the batteries were charged to full. */
  readonly isRested?: boolean;
  /** The 12 V battery of a machine that wakes was found dead: no doors, no lamps. */
  readonly diedInService: boolean;
}

/** A battery that may take no current is a stop, whether somebody raised it or not. */
export const STOP_OF_BAR: Readonly<Record<BatteryBar, StopCondition>> = {
  frozen: 'frozen',
  reversed: 'polarity-unknown',
};

/** Returns the state that forbids any current through a battery of this machine, by its own volts and the cold; null when none does. */
export function barOf({ chemistry, restVolts, tempC, coldestC = tempC }: Case): BatteryBar | null {
  return restVolts.map((volts) => batteryBar(chemistry, volts, coldestC)).find((bar) => bar !== null) ?? null;
}

/**
 * Returns the volts of the posts while a key was turned and nothing drew amps, and a minute after: that is the battery at rest, read a
 * second time. One slip of a finger on the rest volts alone must not let ice pass. Of a string, the mean of its batteries.
 */
export function silentVolts(evidence: readonly DiagnosisEvidence[], tempC: number): number[] {
  const isSilent = evidence.some(
    ({ check, found }) => check === 'symptom' && (found === 'silence' || found === 'silence-bright'),
  );
  if (!isSilent) return [];
  // A crank that started it has drawn on the battery since: what it recovers to is no rest.
  const hasRun = evidence.some(
    ({ check, found }) => (check === 'with-help' || check === 'try-alone') && found === 'started',
  );
  return evidence.flatMap(({ check, found, postVolts }) => {
    if (typeof found !== 'number') return [];
    const posts = postVolts ?? found + crankLimitVolts(tempC, 12);
    if (check === 'crank') return posts >= NOTHING_DRAWS_VOLTS ? [posts + KEY_DROP_VOLTS] : [];
    return check === 'recovery' && !hasRun ? [found + RECOVERY_SHORT_VOLTS] : [];
  });
}

/** A stuck starter is silent too, but pulls a battery that could not be ice well below this, V. */
const NOTHING_DRAWS_VOLTS = 11;
/** The dash and the control units that a key wakes take this much of the posts, V. */
const KEY_DROP_VOLTS = 0.25;
/** A minute after a key was turned a battery stands this much under its rest, V. */
const RECOVERY_SHORT_VOLTS = 0.25;

/** True when the weakest battery that was read holds enough charge to be judged on a load or crank figure. */
export function isJudgeable({ chemistry, restVolts, tempC }: Case, rules: HouseRules): boolean {
  const read = restVolts.filter((v) => v !== null);
  const soc = Math.min(...read.map((v) => socFromRestVolts(chemistry, v, tempC).soc));
  return read.length > 0 && soc >= rules.judgeMinSoc;
}

/** True of a battery that may be judged on what it shows: charged to full a day ago, or with charge enough now. */
export const mayBeJudged = (facts: Case, rules: HouseRules): boolean =>
  facts.isRested === true || isJudgeable(facts, rules);

/** True when every battery was read and one of them has less than half its charge: then a charger has work to do. */
export function isKnownFlat({ chemistry, restVolts, tempC }: Case): boolean {
  const socs = restVolts.map((v) => (v === null ? 1 : socFromRestVolts(chemistry, v, tempC).soc));
  return Math.min(...socs) < KNOWN_FLAT_SOC;
}
const KNOWN_FLAT_SOC = 0.5;
