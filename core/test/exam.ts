import {
  type Cause,
  type CheckId,
  checkOf,
  type Crowd,
  diagnose,
  type DiagnosisEvidence,
  LEAST_GAIN_BITS,
  proposals,
  type Tool,
  TOOLS,
  VOLUNTEERED,
} from '../src/diagnosis/index.js';
import type { Random, ReliabilityRow } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { conclude, type VerdictRecord } from '../src/verdict/index.js';
import { reliability } from './reliability.js';
import { findingFor, technician } from './truth/technician.js';
import {
  between,
  isSound,
  isSpent,
  isUnsafe,
  odds,
  oneOf,
  standingOf,
  type Stranded,
} from './truth/world.js';

/** One stranded machine judged by the tool. */
export interface Examined {
  readonly it: Stranded;
  readonly evidence: readonly DiagnosisEvidence[];
  readonly ranked: readonly { readonly cause: Cause; readonly share: number }[];
  readonly verdict: VerdictRecord;
}

/** Enough to be sure; nobody stands in the cold for more than this many checks. */
const SURE = 0.97;
const CHECKS_MOST = 16;
/** Share of drivers that tells any one of such things. */
const VOLUNTEERED_SHARE = 0.35;
const ROUTINES: readonly (readonly CheckId[])[] = [
  ['rest'],
  ['rest', 'look-joints', 'ask-left-on'],
  ['ask-use', 'ask-flats', 'rest', 'conductance'],
  ['rest', 'crank', 'key-on'],
  ['try-alone', 'rest', 'look-date'],
];

/** A technician works through a machine: a habit of their own first, then what the tool proposes. */
export function examine(it: Stranded, crowd: Crowd, random: Random): Examined {
  const who = technician(random);
  const tools: readonly Tool[] = TOOLS.filter((tool) => tool === 'meter' || odds(random, 0.75));
  const evidence: DiagnosisEvidence[] = [];
  const isString = it.cells.length > 1;
  const take = (check: CheckId, battery?: number): boolean => {
    if (evidence.some((e) => e.check === check && e.battery === battery)) return false;
    // An instrument across one battery sees that one only.
    const seen = battery === undefined ? it : { ...it, cells: it.cells.slice(battery, battery + 1) };
    const found = findingFor(check, seen, who, random);
    if (found === null) return false;
    evidence.push({ check, found, ...(battery !== undefined && { battery }) });
    return true;
  };
  /** Of a string every battery is read by itself. */
  const takeAll = (check: CheckId, battery?: number): boolean =>
    isString && battery === undefined && checkOf(check).isOfBattery
      ? it.cells.map((_, i) => take(check, i)).includes(true)
      : take(check, battery);
  take('symptom');
  // An answer that a driver gives unasked costs no check.
  for (const check of VOLUNTEERED) if (odds(random, VOLUNTEERED_SHARE)) take(check);
  const told = evidence.length - 1;
  for (const check of oneOf(random, ROUTINES)) {
    const needs = check === 'conductance' ? 'tester' : null;
    if (needs === null || tools.includes(needs)) takeAll(check);
  }
  const most = Math.round(between(random, 9, CHECKS_MOST));
  const refused = new Set<CheckId>();
  while (evidence.length - told < most) {
    const [first] = diagnose(crowd, evidence);
    const best = proposals(crowd, evidence, tools).find((p) => !refused.has(p.check));
    if (!best || best.gainBits < LEAST_GAIN_BITS || first!.share >= SURE) break;
    if (!takeAll(best.check, best.battery)) refused.add(best.check);
  }
  const rests = evidence.filter((e) => e.check === 'rest').map((e) => e.found as number);
  const verdict = conclude(
    crowd,
    evidence,
    {
      chemistry: it.rating.chemistry,
      wakes: it.engine === null,
      tempC: it.tempC,
      stops: [],
      restVolts: rests,
      earlierFlatCalls: it.driver.earlierFlat && odds(random, 0.4) ? 1 : 0,
      diedInService: it.engine === null && evidence[0]!.found === 'no-doors',
    },
    tools,
    DEFAULT_RULES,
  );
  return {
    it,
    evidence,
    ranked: diagnose(crowd, evidence).map(({ cause, share }) => ({ cause, share })),
    verdict,
  };
}

/** The result of an exam of many. */
export interface Report {
  readonly cases: number;
  readonly first: number;
  readonly firstTwo: number;
  readonly soundCondemned: number;
  readonly spentKept: number;
  readonly unsafeMissed: number;
  readonly soundCalledUnsafe: number;
  /** Claims of the leading cause by size, and how often it was there. */
  readonly reliability: readonly ReliabilityRow[];
  readonly brier: number;
  /** Batteries of strings whose condition was told right, and how many there were. */
  readonly eachRight: number;
  readonly each: number;
}

const share = <T>(list: readonly T[], test: (item: T) => boolean): number =>
  list.length === 0 ? 0 : list.filter(test).length / list.length;

export function reportOf(all: readonly Examined[], edges: readonly number[]): Report {
  const condemns = ({ verdict }: Examined): boolean => verdict.verdict.startsWith('replace');
  // Frozen and reversed are no matter of odds: what bars the battery is judged apart.
  const judged = all.filter(({ it }) => !isUnsafe(it));
  const each = judged.flatMap(({ it, verdict }) =>
    it.cells.length > 1
      ? it.cells.map((cell, i) => standingOf(cell) === verdict.batteries![i]!.condition)
      : [],
  );
  return {
    cases: all.length,
    each: each.length,
    eachRight: share(each, (isRight) => isRight),
    first: share(judged, ({ it, ranked }) => it.faults.includes(ranked[0]!.cause)),
    firstTwo: share(judged, ({ it, ranked }) => ranked.slice(0, 2).some((r) => it.faults.includes(r.cause))),
    soundCondemned: share(
      all.filter(({ it }) => isSound(it)),
      condemns,
    ),
    spentKept: share(
      all.filter(({ it }) => isSpent(it)),
      ({ verdict }) => verdict.verdict === 'keep',
    ),
    unsafeMissed: all.filter(({ it, verdict }) => isUnsafe(it) && verdict.verdict !== 'unsafe').length,
    soundCalledUnsafe: share(judged, ({ verdict }) => verdict.verdict === 'unsafe'),
    reliability: reliability(
      all.map(({ it, ranked: [top] }) => ({ claim: top!.share, isMet: it.faults.includes(top!.cause) })),
      edges,
    ),
    brier:
      judged.reduce((sum, e) => {
        const said = e.ranked.reduce(
          (s, { cause, share: p }) => s + (p - Number(e.it.faults.includes(cause))) ** 2,
          0,
        );
        return sum + said;
      }, 0) / judged.length,
  };
}

/** The usual fixed chart, for comparison: the battery is tested first, and what fails is replaced. */
export function chartSays(it: Stranded, random: Random): Cause {
  const who = technician(random);
  const figure = (check: CheckId): number => (findingFor(check, it, who, random) as number | null) ?? 0;
  const rest = figure('rest');
  if (rest < 0) return 'reversed';
  if (rest < 10.85) return 'dead-cell';
  if (figure('conductance') < 0.8) return 'worn';
  if (!it.engine) {
    if (rest < 12.2) return 'discharged';
    return findingFor('traction-gauge', it, who, random) === 'flat' ? 'traction-flat' : 'converter';
  }
  if (rest < 12.2) return figure('charging') < 13.2 ? 'charging' : 'discharged';
  if (figure('crank') < 0) return 'worn';
  if (figure('joint-plus') > 0.2) return 'joint-positive';
  if (figure('joint-minus') > 0.2) return 'joint-negative';
  if (findingFor('symptom', it, who, random) === 'brisk-no-fire') return 'fuel';
  if (findingFor('isolator-fuse', it, who, random) === 'fault') return 'main-fuse';
  return findingFor('interlocks', it, who, random) === 'fault' ? 'interlock' : 'starter';
}
