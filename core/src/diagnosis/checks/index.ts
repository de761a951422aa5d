import { OF_DRIVER } from './of-driver.js';
import { OF_LOOKS } from './of-looks.js';
import { OF_METER } from './of-meter.js';
import { OF_BATTERY_ITSELF } from './of-battery.js';
import { OF_TRIES } from './of-tries.js';
import { OF_RUNNING } from './of-running.js';
import type { DiagnosisProfile } from '../causes.js';
import type { HiddenMachine } from '../hidden.js';
import type { CheckRow, Tool } from './check.js';

export { type Found, MEASURE_RANGES, type MeasureContext, type Tool, TOOLS } from './check.js';
export { keyOnDrop, LAMPS_AMPS } from './of-meter.js';
export { TRY_ROWS } from './of-tries.js';

/** Every check that the tool can propose: its cost, its findings, and their chances on a given machine. */
const ROWS = {
  ...OF_DRIVER,
  ...OF_LOOKS,
  ...OF_METER,
  ...OF_BATTERY_ITSELF,
  ...OF_TRIES,
  ...OF_RUNNING,
};

/** Everything that can be asked, looked at, worked or measured. */
export type CheckId =
  | keyof typeof OF_DRIVER
  | keyof typeof OF_LOOKS
  | keyof typeof OF_METER
  | keyof typeof OF_BATTERY_ITSELF
  | keyof typeof OF_TRIES
  | keyof typeof OF_RUNNING;
export const CHECK_IDS = Object.keys(ROWS) as CheckId[];

/** One check with its id. */
export interface Check extends CheckRow {
  readonly id: CheckId;
  readonly shownBy?: CheckId;
  readonly partOf?: CheckId;
}

/** All checks, in the order in which they are weighed. */
export const CHECKS: readonly Check[] = CHECK_IDS.map((id): Check => ({ id, ...ROWS[id] }));

/**
 * True for a check that tells causes apart by itself; the others are parts of one, or stop the job.
 *
 * @example isWeighed(checkOf('case')) // => false
 */
export function isWeighed({ chances, predict }: Check): boolean {
  return (chances ?? predict) !== undefined;
}

/** Checks that can be given as evidence. */
export const WEIGHED_CHECK_IDS: readonly CheckId[] = CHECKS.filter(isWeighed).map(({ id }) => id);

/** Spread of a figure on this machine. */
export function spreadOf({ spread }: Check, hidden: HiddenMachine, profile: DiagnosisProfile): number {
  return typeof spread === 'function' ? spread(hidden, profile) : spread!;
}

/** Checks that a driver tells unasked. */
export const VOLUNTEERED: readonly CheckId[] = CHECKS.filter((c) => c.isVolunteered).map(({ id }) => id);

/**
 * The check with this id.
 *
 * @example checkOf('rest').id // => 'rest'
 */
export function checkOf(id: CheckId): Check {
  return CHECKS.find((c) => c.id === id)!;
}

/** Checks that can be weighed here with these tools. */
export function checksFor(profile: DiagnosisProfile, tools: readonly Tool[]): Check[] {
  return CHECKS.filter(
    (c) => isWeighed(c) && (c.fits?.(profile) ?? true) && (c.needs === null || tools.includes(c.needs)),
  );
}
