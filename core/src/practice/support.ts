import { type CheckId, checkOf, type Crowd, type Suspect } from '../diagnosis/index.js';
import { isSourceClamp } from '../circuit/index.js';
import { conclude, type VerdictKind, type VerdictRecord } from '../verdict/index.js';
import { factsOf, looksAtCase } from './facts.js';
import { batteryAcross } from './read-by-hand.js';
import type { Happened, World } from './world.js';

/** A check that overturns the verdict at least so often is worth its minutes: without it nothing is proved. */
const DECIDES_FROM = 0.08;

/** The evidence of a run, as the tool's own belief holds it. */
export interface Support {
  /** The tool's verdict by the same findings. */
  readonly record: VerdictRecord;
  /** The check that was left out and could overturn it; null where none is. */
  readonly missing: CheckId | null;
  /** The verdict that was given is the one that these findings support, on a job as here. */
  readonly isSupported: boolean;
}

/** Returns the tool's verdict on the case by the findings so far. */
export function toolVerdict(world: World, mind: Crowd): VerdictRecord {
  const { practice, evidence } = world;
  return conclude(mind, evidence, factsOf(world), practice.tools, practice.rules);
}

/** Another battery now or soon: the same proof carries both. */
const REPLACES: readonly VerdictKind[] = ['replace-now', 'replace-soon'];

const isSame = (given: VerdictKind, told: VerdictKind): boolean =>
  given === told || (REPLACES.includes(given) && REPLACES.includes(told));

/** A cable is read with the joint at its end: either name sends the hand to the same place. */
export const PATH: readonly Suspect[] = ['joint', 'cable'];

const isSamePart = (given: Suspect | null, told: Suspect | null): boolean =>
  given === told || (given !== null && told !== null && PATH.includes(given) && PATH.includes(told));

/**
 * Returns whether the findings of a run support the verdict that was given. The bar is that of a job: the tool says the same by the same
 * findings, and no check within reach could overturn it.
 *
 * @param mind by `mindFor`
 */
export function supportOf(world: World, mind: Crowd): Support {
  const record = toolVerdict(world, mind);
  const missing = decidingHere(world, record)?.check ?? null;
  const given = world.verdict;
  const isPartSame =
    record.verdict !== 'not-the-battery' || isSamePart(given?.suspect ?? null, record.suspect);
  const isSupported =
    given !== null &&
    isSame(given.verdict, record.verdict) &&
    isPartSame &&
    (missing === null || record.verdict === 'unsafe');
  return { record, missing, isSupported };
}

/** Returns the check that would overturn the tool's verdict, where it can be done in this case as it stands. */
export function decidingHere(
  world: World,
  { deciding }: VerdictRecord,
  from = DECIDES_FROM,
): VerdictRecord['deciding'] {
  return deciding && deciding.chance >= from && canBeDone(world, deciding.check) ? deciding : null;
}

/** Checks that join a source are done by joining it, and a charge takes longer than a case. */
const NOT_ASKED: readonly string[] = ['with-help', 'promise', 'acceptance', 'try-alone'];

/** Read only while it stands: once it runs, no case stops it again. */
const STANDING: readonly string[] = ['rest', 'crank', 'recovery', 'key-on', 'drain'];

export const canBeDone = ({ runs }: World, check: CheckId): boolean =>
  !NOT_ASKED.includes(check) && (runs ? !STANDING.includes(check) : checkOf(check).when !== 'running');

/** All acts of a run in their time, taken back or not. */
const allActs = ({ log, takenBack }: World): readonly Happened[] =>
  [...takenBack, ...log].sort((a, b) => a.atMinutes - b.atMinutes);

const isClampOnCasualty = ({ action }: Happened): boolean =>
  action.kind === 'hands' && action.action.kind === 'attach' && !isSourceClamp(action.action.clamp);

/** Returns the act that brought the first clamp to the casualty, taken back or not; undefined where none did. */
export const firstClampOf = (world: World): Happened | undefined => allActs(world).find(isClampOnCasualty);

/** Returns the acts before the first clamp came to the casualty; all of a run in which none did. */
function beforeClamps(world: World): readonly Happened[] {
  const all = allActs(world);
  const first = all.findIndex(isClampOnCasualty);
  return first < 0 ? all : all.slice(0, first);
}

/** True where no clamp came to the casualty before a meter had shown which of its posts is plus. */
export const isPolarityRead = (world: World): boolean =>
  firstClampOf(world) === undefined || beforeClamps(world).some((happened) => readsRest(world, happened));

/** It tells whether a machine that runs feeds itself. */
const FEEDING: readonly CheckId[] = ['charging', 'charging-loaded', 'converter'];

/** True where it was got running, and nobody read whether it charges: a job asks for that before its verdict. */
export const isChargingUnread = ({ runs, evidence }: World): boolean =>
  runs && !evidence.some(({ check }) => FEEDING.includes(check));

/** True where the case was looked at, and rest volts were read, before the first clamp or the verdict. */
export function areStopsLookedFor(world: World): boolean {
  const before = beforeClamps(world);
  return before.some(looksAtCase) && before.some((happened) => readsRest(world, happened));
}

/** A meter across the own posts of a battery, either way round, by a check or by its probes. */
function readsRest({ practice: { machine } }: World, { action }: Happened): boolean {
  if (action.kind === 'check') return action.check === 'rest';
  if (action.kind !== 'probe') return false;
  const { red, black } = action;
  return [action, { red: black, black: red }].some((probes) => batteryAcross(machine, probes) !== null);
}
