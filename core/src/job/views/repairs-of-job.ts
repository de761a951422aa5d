import {
  type CheckId,
  checkOf,
  type Found,
  outcomeIndex,
  type Repair,
  type RepairOffered,
  repairsFor,
  shownBy,
} from '../../diagnosis/index.js';
import type { Machine } from '../../machine/index.js';
import type { Job } from '../job.js';

/** The finding of a look or a figure. */
export interface Finding {
  readonly check: CheckId;
  readonly found: Found;
}

/** A repair with its proof: what showed the fault, and the same found again once it was mended. */
export interface Mended extends Repair {
  readonly at: string;
  /** Null where nothing of it was recorded before. */
  readonly before: Finding | null;
  /** Null until it is found again. */
  readonly after: Finding | null;
}

/** The repairs of a job, in order. */
export function repairsMade({ repairs }: Pick<Job, 'repairs'>): Repair[] {
  return repairs.map(({ at: _at, found: _found, ...repair }) => repair);
}

/** The repairs of a job, each with its finding before and after. */
export function mendedOfJob({ repairs, findings }: Pick<Job, 'repairs' | 'findings'>): Mended[] {
  return repairs.map(({ found, at, ...repair }, i): Mended => {
    const then = repairs[i + 1]?.found ?? findings;
    // Tells its finding; a figure before a look.
    const before = findingIn(found, shownBy(repair), true);
    const again = before ? [before.check, ...shownBy(repair)] : shownBy(repair);
    return { ...repair, at, before, after: findingIn(then, again, false) };
  });
}

function findingIn(findings: Job['findings'], checks: readonly CheckId[], atFault: boolean): Finding | null {
  const given = checks.flatMap((check): Finding[] => {
    const found = findings[check];
    return found === undefined || (atFault && isSound(check, found)) ? [] : [{ check, found }];
  });
  return (atFault ? given.find(({ found }) => typeof found === 'number') : null) ?? given[0] ?? null;
}

/** A check of a sound machine finds the last of its words. For a figure that counts losses it finds the first of its ranges. */
function isSound(check: CheckId, found: Found): boolean {
  const { edges, outcomes } = checkOf(check);
  return outcomeIndex(checkOf(check), found) === (edges ? 0 : outcomes.length - 1);
}

/** Returns the repairs that fit the findings of now. None while a stop stands. */
export function repairsOfJob(
  { findings, stops }: Pick<Job, 'findings' | 'stops'>,
  machine: Machine,
): RepairOffered[] {
  return stops.length > 0 ? [] : repairsFor(findings, machine);
}
