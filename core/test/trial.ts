import {
  CAUSES,
  type Cause,
  type CheckId,
  checkOf,
  type Crowd,
  diagnose,
  type DiagnosisEvidence,
  type DiagnosisProfile,
  type Found,
  type HiddenMachine,
  LEAST_GAIN_BITS,
  proposals,
  REPLACE_CAUSES,
  TOOLS,
} from '../src/diagnosis/index.js';
import { answerOf } from '../src/practice/index.js';
import type { Random } from '../src/quantities/index.js';
import { CONDEMN_SHARE } from '../src/verdict/index.js';

/** How a diagnosis ended. */
export interface TrialResult {
  readonly truth: Cause;
  readonly ranked: readonly Cause[];
  readonly checks: number;
  readonly minutes: number;
  readonly replaces: boolean;
}

/** The tool stops asking when it is this sure, when nothing left tells enough, or after so many checks. */
const SURE = 0.985;
const CHECKS_MOST = 12;

/** The tool's way: whatever check tells most for its time, until it is sure. */
export function trialByTool(crowd: Crowd, hidden: HiddenMachine, random: Random): TrialResult {
  const evidence: DiagnosisEvidence[] = [
    { check: 'symptom', found: answerOf('symptom', hidden, crowd.profile, random) },
  ];
  let minutes = 0;
  for (;;) {
    const suspicions = diagnose(crowd, evidence);
    const [best] = proposals(crowd, evidence, TOOLS);
    const isDone =
      suspicions[0]!.share >= SURE ||
      !best ||
      best.gainBits < LEAST_GAIN_BITS ||
      evidence.length > CHECKS_MOST;
    if (isDone) {
      const condemned = suspicions
        .filter((s) => REPLACE_CAUSES.includes(s.cause))
        .reduce((sum, s) => sum + s.share, 0);
      return {
        truth: hidden.cause,
        ranked: suspicions.map((s) => s.cause),
        checks: evidence.length - 1,
        minutes,
        replaces: condemned >= CONDEMN_SHARE,
      };
    }
    minutes += best.minutes;
    evidence.push({ check: best.check, found: answerOf(best.check, hidden, crowd.profile, random) });
  }
}

/** The usual fixed chart for comparison: the battery is tested first, and what fails is replaced. */
export function trialByChart(profile: DiagnosisProfile, hidden: HiddenMachine, random: Random): TrialResult {
  const asked: CheckId[] = [];
  let minutes = 0;
  const ask = (id: CheckId): Found => {
    asked.push(id);
    minutes += checkOf(id).minutes;
    return answerOf(id, hidden, profile, random);
  };
  const end = (cause: Cause): TrialResult => ({
    truth: hidden.cause,
    ranked: [cause],
    checks: asked.length,
    minutes,
    replaces: REPLACE_CAUSES.includes(cause),
  });
  const symptom = answerOf('symptom', hidden, profile, random);
  const rest = ask('rest') as number;
  if (rest < 0) return end('reversed');
  if (rest > 3 && rest < 10.85) return end('dead-cell');
  const share = ask('conductance') as number;
  if (share < 0.8) return end('worn');
  if (profile.engine) {
    if (rest < 12.2) return end((ask('charging') as number) < 13.2 ? 'charging' : 'discharged');
    if ((ask('crank') as number) < 0) return end('worn');
    if ((ask('joint-plus') as number) > 0.2) return end('joint-positive');
    if ((ask('joint-minus') as number) > 0.2) return end('joint-negative');
    if (symptom === 'brisk-no-fire') return end('fuel');
    if (ask('isolator-fuse') === 'fault') return end('main-fuse');
    if (ask('interlocks') === 'fault') return end('interlock');
    return end('starter');
  }
  if (rest < 12.2) return end('discharged');
  return end(ask('traction-gauge') === 'flat' ? 'traction-flat' : 'converter');
}

/** What many trials come to. Shares are of all cases but `missed`, which is of those that need a new battery. */
export interface TrialSummary {
  readonly cases: number;
  readonly top1: number;
  readonly top2: number;
  readonly medianChecks: number;
  readonly medianMinutes: number;
  /** Sound batteries thrown away, of all sound batteries. */
  readonly needless: number;
  /** Spent batteries kept, of all spent batteries. */
  readonly missed: number;
  /** Truth, then what was said, then how often. */
  readonly confusion: ReadonlyMap<Cause, ReadonlyMap<Cause, number>>;
}

export function summarise(results: readonly TrialResult[]): TrialSummary {
  const share = (list: readonly TrialResult[], test: (r: TrialResult) => boolean): number =>
    list.length === 0 ? 0 : list.filter(test).length / list.length;
  const median = (of: (r: TrialResult) => number): number =>
    results.map(of).sort((a, b) => a - b)[Math.floor(results.length / 2)] ?? 0;
  const isSpent = (r: TrialResult): boolean => REPLACE_CAUSES.includes(r.truth);
  const confusion = new Map<Cause, Map<Cause, number>>();
  for (const cause of CAUSES) {
    const row = new Map<Cause, number>();
    for (const { ranked } of results.filter((r) => r.truth === cause))
      row.set(ranked[0]!, (row.get(ranked[0]!) ?? 0) + 1);
    if (row.size > 0) confusion.set(cause, row);
  }
  return {
    cases: results.length,
    top1: share(results, (r) => r.ranked[0] === r.truth),
    top2: share(results, (r) => r.ranked.slice(0, 2).includes(r.truth)),
    medianChecks: median((r) => r.checks),
    medianMinutes: median((r) => r.minutes),
    needless: share(
      results.filter((r) => !isSpent(r)),
      (r) => r.replaces,
    ),
    missed: share(results.filter(isSpent), (r) => !r.replaces),
    confusion,
  };
}
