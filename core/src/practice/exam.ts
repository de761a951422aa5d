import type { Cause } from '../diagnosis/index.js';
import { type Random, seededRandom } from '../quantities/index.js';
import type { VerdictKind } from '../verdict/index.js';
import { replay } from './act.js';
import { debriefOf, type Failing, measureOf } from './debrief.js';
import { RUNG_IDS, type RungId } from './rungs.js';
import { codeOfCase, readCaseCode } from './start-case.js';
import { mindFor, toolRun } from './tool-play.js';
import type { PracticeAction } from './world.js';

/** Every exam has a case of each of these: what hurts is asked of everybody. */
const ASKED_ALWAYS: readonly RungId[] = ['order', 'stop'];
/** And so many of the other rungs, drawn. */
const DRAWN_RUNGS = 3;
/** Its cases have numbers that nobody comes to on the ladder. */
const FIRST_NUMBER = 100_000;
const NUMBERS = 900_000;
/** Minutes of the clock on the wall for the whole of it: ten a case, a few more than the tool's own cases take by hand. */
export const EXAM_MINUTES = 50;
/** One case may be got wrong, as long as nobody could have been hurt in any. */
const WRONG_MOST = 1;
/** An exam has a number of up to four digits. */
export const EXAM_NUMBER_MOST = 9_999;

/**
 * The codes of an exam's cases, in their order: the same to everybody, and no place in it tells what a case is about.
 *
 * @example examCases(1).length // => 5
 */
export function examCases(number: number): readonly string[] {
  const random = seededRandom(number);
  const others = RUNG_IDS.filter((id) => !ASKED_ALWAYS.includes(id));
  const asked = [...ASKED_ALWAYS, ...drawnOf(random, others, DRAWN_RUNGS)];
  return drawnOf(random, asked, asked.length).map((id) =>
    codeOfCase(id, FIRST_NUMBER + Math.floor(random() * NUMBERS)),
  );
}

/** So many of a list, each once, in a drawn order. */
function drawnOf<T>(random: Random, list: readonly T[], count: number): readonly T[] {
  const left = [...list];
  return Array.from({ length: count }, () => left.splice(Math.floor(random() * left.length), 1)[0]!);
}

/** A case of an exam as it was worked. */
export interface ExamRun {
  readonly code: string;
  readonly actions: readonly PracticeAction[];
}

/** The mark of a case of an exam. */
export interface ExamCase {
  readonly code: string;
  readonly rung: RungId;
  readonly passed: boolean;
  readonly failings: readonly Failing[];
  /** Times that somebody could have been hurt, taken back or not. */
  readonly severeRisks: number;
  /** Null where none was given in time. */
  readonly verdict: VerdictKind | null;
  readonly truth: Cause;
  readonly minutes: number;
  /** Null where no verdict was given. */
  readonly toolMinutes: number | null;
}

/** The mark of an exam. */
export interface ExamMarks {
  readonly cases: readonly ExamCase[];
  readonly passed: boolean;
}

/**
 * Marks an exam by replaying what was done, each case against the tool's own run of it: safety first, then as many cases right as it takes.
 * A case that was not begun is not ended.
 *
 * @param mindOf the belief that a case is marked by
 * @throws RangeError for runs of other cases, hints (an exam gives none), bench readings, and impossible actions
 */
export function markExam(number: number, runs: readonly ExamRun[], mindOf = mindFor): ExamMarks {
  const codes = examCases(number);
  if (runs.length !== codes.length || runs.some(({ code }, i) => code !== codes[i]))
    throw new RangeError('These are not the cases of that exam.');
  const cases = runs.map((run) => marked(run, mindOf));
  const isSafe = cases.every(({ severeRisks }) => severeRisks === 0);
  const wrong = cases.filter(({ passed }) => !passed).length;
  return { cases, passed: isSafe && wrong <= WRONG_MOST };
}

function marked({ code, actions }: ExamRun, mindOf: typeof mindFor): ExamCase {
  if (actions.some(({ kind }) => kind === 'hint')) throw new RangeError('An exam gives no hints.');
  // A reading of a bench cannot be replayed: its sender could have made it up.
  if (actions.some((action) => 'shown' in action))
    throw new RangeError('An exam is read with its own instruments.');
  const world = replay(code, actions);
  // A case that was not ended is not passed, whatever the tool needs for it.
  const mind = world.verdict ? mindOf(world) : null;
  const tool = mind && measureOf(toolRun(code, mind));
  const { passed, failings, risks, truth, minutes } = debriefOf(world, tool, mind);
  return {
    ...{ code, passed, failings, minutes, toolMinutes: tool?.minutes ?? null },
    rung: readCaseCode(code)!.rung!,
    severeRisks: risks.filter(({ hazard }) => hazard.severity === 'severe').length,
    verdict: world.verdict?.verdict ?? null,
    truth: truth.cause,
  };
}
