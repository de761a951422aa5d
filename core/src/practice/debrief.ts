import { type Cause, REPLACE_CAUSES, SUSPECT_OF } from '../diagnosis/index.js';
import { anyClampOn, type Hazard } from '../hookup/index.js';
import { proofOf, type VerdictKind } from '../verdict/index.js';
import { factsOf } from './tool-play.js';
import { type Happened, mayBeBarred, type World } from './world.js';

/** Why a run is not passed. */
export const FAILINGS = [
  'hurt',
  'wrong-verdict',
  'sound-condemned',
  'unproved',
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
  readonly toolMinutes: number;
  readonly hints: number;
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
const SLOW_TIMES = 2.5;
const SLOW_FLOOR_MINUTES = 30;

/** Verdicts that a truth bears out: of a battery that nobody can prove spent while it is flat, a charge first is no mistake. */
export function rightVerdicts(world: World): readonly VerdictKind[] {
  const { cause, holds } = world.practice.hidden;
  if (holds.includes('frozen') || cause === 'reversed') return ['unsafe'];
  return mayBeBarred(world) ? [...verdictsOfTruth(world), 'unsafe'] : verdictsOfTruth(world);
}

function verdictsOfTruth(world: World): readonly VerdictKind[] {
  const { cause, holds } = world.practice.hidden;
  const isElsewhere = holds.some((c) => SUSPECT_OF[c] !== null);
  if (REPLACE_CAUSES.includes(cause))
    return [
      'replace-now',
      'replace-soon',
      ...(isFlat(world) ? (['charge-first'] as const) : []),
      ...(isElsewhere ? (['not-the-battery'] as const) : []),
    ];
  const also: readonly VerdictKind[] = holds.includes('worn') ? ['replace-soon', 'replace-now'] : [];
  const ofCharge: readonly VerdictKind[] = ['charge-first', 'keep'];
  if (isElsewhere) return ['not-the-battery', ...also, ...(isFlat(world) ? ofCharge : [])];
  return [...ofCharge, ...also];
}

/** Under three quarters of its charge nothing condemns it. */
const JUDGED_FROM_SOC = 0.75;
const isFlat = ({ practice }: World): boolean =>
  practice.hidden.batteries.some(
    ({ soc, overDischargedVolts }) => overDischargedVolts !== undefined || soc < JUDGED_FROM_SOC,
  );

/**
 * Scores a run: safety first, then the verdict, then whether it ran again where the tool's run did. Last the minutes against the tool's own
 * run.
 *
 * @param tool of `toolRun`
 */
export function debriefOf(world: World, tool: ToolMeasure): Debrief {
  const { cause, holds } = world.practice.hidden;
  const risks = [
    ...world.takenBack.flatMap((what) => risksOf(what, true)),
    ...world.log.flatMap((what) => risksOf(what, false)),
  ].sort((a, b) => a.what.atMinutes - b.what.atMinutes);
  const right = rightVerdicts(world);
  const given = world.verdict?.verdict;
  const isCondemned = given === 'replace-now' || given === 'replace-soon';
  const isSoundCondemned = isCondemned && !holds.some((c) => REPLACE_CAUSES.includes(c));
  // Right by luck is not right: a battery is condemned by a test of it.
  const isProved = proofOf(world.evidence, factsOf(world), world.practice.rules) !== null;
  const isTooSlow = world.minutes > Math.max(SLOW_FLOOR_MINUTES, SLOW_TIMES * tool.minutes);
  const failings: Failing[] = [
    ...(risks.some(({ hazard }) => hazard.severity === 'severe') ? (['hurt'] as const) : []),
    ...(given === undefined
      ? (['not-ended'] as const)
      : right.includes(given)
        ? []
        : (['wrong-verdict'] as const)),
    ...(isSoundCondemned ? (['sound-condemned'] as const) : []),
    ...(isCondemned && !isProved ? (['unproved'] as const) : []),
    ...(tool.started && !measureOf(world).started ? (['not-started'] as const) : []),
    ...(anyClampOn(world.hookup) ? (['still-joined'] as const) : []),
    ...(isTooSlow ? (['too-slow'] as const) : []),
  ];
  return {
    passed: failings.length === 0,
    failings,
    risks,
    truth: { cause, holds },
    right,
    minutes: world.minutes,
    toolMinutes: tool.minutes,
    hints: world.hints.length,
  };
}

const risksOf = (what: Happened, takenBack: boolean): RiskRun[] =>
  what.hazards.filter(({ severity }) => severity !== 'note').map((hazard) => ({ what, hazard, takenBack }));
