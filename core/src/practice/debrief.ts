import { ageingOfStrength, WORN_BELOW_SHARE } from '../battery/index.js';
import {
  type Cause,
  type CheckId,
  type Crowd,
  REPLACE_CAUSES,
  type Suspect,
  SUSPECT_OF,
} from '../diagnosis/index.js';
import { anyClampOn, type Hazard } from '../hookup/index.js';
import type { VerdictKind } from '../verdict/index.js';
import { areStopsLookedFor, isChargingUnread, isPolarityRead, PATH, supportOf } from './support.js';
import { type Happened, mayBeBarred, type World } from './world.js';

/** Why a run is not passed. */
export const FAILINGS = [
  'hurt',
  'wrong-verdict',
  'sound-condemned',
  'wrong-part',
  'unproved',
  'polarity-unread',
  'stops-unlooked',
  'charging-unread',
  'not-started',
  'still-joined',
  'too-slow',
  'not-ended',
] as const;
export type Failing = (typeof FAILINGS)[number];

/** A risk that was run, in its moment. */
export interface RiskRun {
  readonly what: Happened;
  readonly hazard: Hazard;
  /** It was taken back: it counts all the same. */
  readonly takenBack: boolean;
}

/** The score of a run, and its reasons. */
export interface Debrief {
  readonly passed: boolean;
  /** In the order that they weigh: safety, then the verdict, then minutes. */
  readonly failings: readonly Failing[];
  readonly risks: readonly RiskRun[];
  readonly truth: { readonly cause: Cause; readonly holds: readonly Cause[] };
  /** Verdicts that the truth bears out. */
  readonly right: readonly VerdictKind[];
  readonly minutes: number;
  readonly toolMinutes: number | null;
  /** A run that takes longer is too slow. */
  readonly slowAfterMinutes: number;
  readonly hints: number;
  /** The check that was left out and could have overturned the verdict; null where none was. */
  readonly missing: CheckId | null;
}

/** The tool's own run of a case, as far as another is measured by it. */
export interface ToolMeasure {
  readonly minutes: number;
  /** It ran, or was woken: whoever came had something to do before the verdict. */
  readonly started: boolean;
}

export const measureOf = (world: World): ToolMeasure => ({
  minutes: world.minutes,
  started: world.log.some(({ key }) => key?.outcome === 'starts' || key?.outcome === 'wakes'),
});

/** A run may take this many times the minutes of the tool's, and never fewer than the floor below. */
const SLOW_TIMES = 1.5;
const SLOW_FLOOR_MINUTES = 25;

/**
 * Returns the verdicts that a truth bears out, and no more: a dead cell is never charged first, and a part that is at fault is named.
 *
 * @example rightVerdicts(startCase('made~car~dead-cell~5~1')) // => ['replace-now', 'replace-soon']
 */
export function rightVerdicts(world: World): readonly VerdictKind[] {
  const { cause, holds } = world.practice.hidden;
  if (holds.includes('frozen') || cause === 'reversed') return ['unsafe'];
  return mayBeBarred(world) ? [...verdictsOfTruth(world), 'unsafe'] : verdictsOfTruth(world);
}

/** Nothing but a new battery cures these, flat or not. */
const SPENT: readonly Cause[] = ['dead-cell', 'broken-link'];
/** With these a charge comes first, whatever else is named; any other part at fault is named beside it. */
const EMPTIES: readonly Cause[] = ['drain', 'not-taught', 'left-on', 'discharged'];

function verdictsOfTruth(world: World): readonly VerdictKind[] {
  const { holds } = world.practice.hidden;
  const has = (causes: readonly Cause[]): boolean => holds.some((cause) => causes.includes(cause));
  if (has(SPENT)) return ['replace-now', 'replace-soon'];
  const soc = lowestSoc(world);
  const isElsewhere = rightParts(world).length > 0;
  const isWorn = has(REPLACE_CAUSES) || isUnderFourFifths(world);
  return [
    ...(isElsewhere ? (['not-the-battery'] as const) : []),
    ...(isWorn ? (['replace-now', 'replace-soon'] as const) : []),
    ...(soc < CHARGED_BELOW_SOC ? (['charge-first'] as const) : []),
    ...(!isElsewhere && !has(REPLACE_CAUSES) && soc >= KEPT_FROM_SOC ? (['keep'] as const) : []),
  ];
}

/** Returns the parts beside the battery that are truly at fault. */
export function rightParts({ practice: { hidden } }: Pick<World, 'practice'>): readonly Suspect[] {
  const parts = hidden.holds.flatMap((cause) => SUSPECT_OF[cause] ?? []);
  const isPath = parts.some((part) => PATH.includes(part));
  return [
    ...new Set([
      ...parts,
      ...(hidden.beltBad && parts.includes('charging') ? (['belt'] as const) : []),
      ...(isPath ? PATH : []),
    ]),
  ];
}

/** A reading stands so near to the bar of three quarters that either side is honest. */
const CHARGED_BELOW_SOC = 0.8;
const KEPT_FROM_SOC = 0.7;
/** By the trade's measure a battery under four fifths of its strength is worn, whatever else is at fault. */
const isUnderFourFifths = ({ practice }: World): boolean =>
  practice.hidden.batteries.some(({ ageing }) => ageing > ageingOfStrength(WORN_BELOW_SHARE));
const lowestSoc = ({ practice }: World): number =>
  Math.min(
    ...practice.hidden.batteries.map(({ soc, overDischargedVolts }) =>
      overDischargedVolts === undefined ? soc : 0,
    ),
  );

/**
 * Returns what is wrong with an answer to a case; null for one that the truth bears out. A part is named where one is at fault, and it is the
 * part.
 */
export function wrongIn(
  world: World,
  { verdict, suspect }: NonNullable<World['verdict']>,
): 'wrong-verdict' | 'wrong-part' | null {
  if (!rightVerdicts(world).includes(verdict)) return 'wrong-verdict';
  const { cause, holds } = world.practice.hidden;
  const isHalf =
    verdict === 'charge-first' && SUSPECT_OF[cause] !== null && !holds.some((held) => EMPTIES.includes(held));
  const isAsked = verdict === 'not-the-battery' || suspect !== null || isHalf;
  const isPart = suspect !== null && rightParts(world).includes(suspect);
  return isAsked && !isPart ? 'wrong-part' : null;
}

/**
 * Scores a run: safety first, then the verdict and its proof, then whether it ran again where the tool's run did. Last the minutes against
 * the tool's own run.
 *
 * @param tool of `toolRun`; null for a run without a verdict, which is held against nothing
 * @param mind by `mindFor`, null as well: the belief that its findings are held against
 */
export function debriefOf(world: World, tool: ToolMeasure | null, mind: Crowd | null): Debrief {
  const { cause, holds } = world.practice.hidden;
  const risks = [
    ...world.takenBack.flatMap((what) => risksOf(what, true)),
    ...world.log.flatMap((what) => risksOf(what, false)),
  ].sort((a, b) => a.what.atMinutes - b.what.atMinutes);
  const right = rightVerdicts(world);
  const given = world.verdict?.verdict;
  const isCondemned = given === 'replace-now' || given === 'replace-soon';
  const isSoundCondemned = isCondemned && !right.includes('replace-soon');
  const wrong = world.verdict && wrongIn(world, world.verdict);
  // Right by luck is not right.
  const support = given === undefined || !mind ? null : supportOf(world, mind);
  const slowAfterMinutes = Math.max(SLOW_FLOOR_MINUTES, SLOW_TIMES * (tool?.minutes ?? Infinity));
  const failings: Failing[] = [
    ...(risks.some(({ hazard }) => hazard.severity === 'severe') ? (['hurt'] as const) : []),
    ...(given === undefined ? (['not-ended'] as const) : []),
    ...(wrong ? [wrong] : []),
    ...(isSoundCondemned ? (['sound-condemned'] as const) : []),
    ...(support && !wrong && !support.isSupported ? (['unproved'] as const) : []),
    ...(isChargingUnread(world) ? (['charging-unread'] as const) : []),
    ...(isPolarityRead(world) ? [] : (['polarity-unread'] as const)),
    ...(areStopsLookedFor(world) ? [] : (['stops-unlooked'] as const)),
    ...(tool?.started && !measureOf(world).started ? (['not-started'] as const) : []),
    ...(anyClampOn(world.hookup) ? (['still-joined'] as const) : []),
    ...(world.minutes > slowAfterMinutes ? (['too-slow'] as const) : []),
  ];
  return {
    passed: failings.length === 0,
    failings,
    risks,
    truth: { cause, holds },
    right,
    minutes: world.minutes,
    toolMinutes: tool?.minutes ?? null,
    slowAfterMinutes,
    hints: world.hints.length,
    missing: support?.missing ?? null,
  };
}

const risksOf = (what: Happened, takenBack: boolean): RiskRun[] =>
  what.hazards.filter(({ severity }) => severity !== 'note').map((hazard) => ({ what, hazard, takenBack }));
