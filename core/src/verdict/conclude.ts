import {
  type Crowd,
  type DiagnosisEvidence,
  outcomeIndex,
  sharesByCause,
  splitBy,
  type Walk,
  walk,
} from '../diagnosis/belief.js';
import { CAUSES, type Cause, REPLACE_CAUSES, SUSPECT_OF } from '../diagnosis/causes.js';
import { type Found, type CheckId, checksFor, type Tool } from '../diagnosis/checks.js';
import type { Suspect } from '../diagnosis/vocabulary.js';
import type { HouseRules } from '../rules/house-rules.js';
import { barOf, type Case, isJudgeable } from './case.js';
import { proofOf, showsSound } from './proof.js';

export const VERDICTS = [
  'keep',
  'charge-first',
  'replace-soon',
  'replace-now',
  'not-the-battery',
  'unsafe',
] as const;
export type VerdictKind = (typeof VERDICTS)[number];

export const CERTAINTIES = ['sure', 'fairly-sure', 'unsure'] as const;
export type Certainty = (typeof CERTAINTIES)[number];

/** Why the verdict is what it is, beside the shares of the causes. */
export const GROUNDS = [
  'stop-stands',
  'frozen-likely',
  'frozen-by-volts',
  'reversed-by-volts',
  'proved-spent',
  'proved-worn',
  'likely-but-unproved',
  'discharged-not-bad',
  'flat-again',
  'died-in-service',
  'sound-and-charged',
  'fault-elsewhere',
  'no-evidence',
] as const;
export type Ground = (typeof GROUNDS)[number];

export const FOLLOW_UPS = ['recheck', 'replace', 'inspect', 'workshop', 'charge', 'charge-monthly'] as const;

/** A date to keep, in days from the verdict. */
export interface FollowUp {
  readonly kind: (typeof FOLLOW_UPS)[number];
  readonly days: number;
}

/** One line of the ledger. */
export interface LedgerLine {
  readonly check: CheckId;
  readonly found: Found;
  /** How far it moved the odds of what the verdict rests on: doublings for, halvings against as negative. */
  readonly bits: number;
}

/** The one check that is likeliest to change the verdict, and how likely. */
export interface DecidingCheck {
  readonly check: CheckId;
  readonly chance: number;
}

export interface VerdictRecord {
  readonly verdict: VerdictKind;
  readonly suspect: Suspect | null;
  readonly certainty: Certainty;
  /** Share that the causes behind the verdict hold together. Left out in older logs, like the three below. */
  readonly share?: number;
  readonly ground?: Ground;
  /** The likeliest causes. */
  readonly causes?: readonly { readonly cause: Cause; readonly share: number }[];
  readonly ledger?: readonly LedgerLine[];
  /** Null when no check would change it. */
  readonly deciding?: DecidingCheck | null;
  readonly followUps: readonly FollowUp[];
}

/** A battery is condemned only when the causes that a new one cures hold this much together. */
export const CONDEMN_SHARE = 0.9;
/** Proof of wear and this much together ask for another battery in good time. */
const REPLACE_SOON_SHARE = 0.6;
/** Shares at which a verdict is called sure and fairly sure. */
const SURE_SHARE = 0.9;
const FAIR_SHARE = 0.7;
/** A check that changes the verdict more rarely than this does not decide it. */
const DECIDING_LEAST = 0.05;
const CAUSES_TOLD = 5;
/** A move of the odds smaller than this is no evidence. */
const LEAST_BITS = 0.05;

const FLAT_CAUSES: readonly Cause[] = ['discharged', 'left-on', 'string-weak'];
/** What empties a sound battery again and again: the battery is not to blame, and the fault is elsewhere. */
const ELSEWHERE = CAUSES.filter((c) => SUSPECT_OF[c] !== null);

type Shares = ReadonlyMap<Cause, number>;
const sumOf = (shares: Shares, causes: readonly Cause[]): number =>
  causes.reduce((sum, cause) => sum + (shares.get(cause) ?? 0), 0);

/** A verdict without its ledger. */
interface Ruling {
  readonly verdict: VerdictKind;
  readonly ground: Ground;
  /** The causes that it rests on. */
  readonly causes: readonly Cause[];
}

/**
 * The verdict over everything that was found: what the causes hold together, bounded by the rule that a discharged battery is never
 * called bad without proof.
 */
export function conclude(
  crowd: Crowd,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  tools: readonly Tool[],
  rules: HouseRules,
): VerdictRecord {
  const { shares: weighed, steps } = walk(crowd, evidence);
  const shares = sharesByCause(crowd, weighed);
  const ruling = rule(shares, evidence, facts, rules);
  const share = ruling.verdict === 'unsafe' ? 1 : sumOf(shares, ruling.causes);
  const ranked = [...shares];
  const isSure = ['stop-stands', 'frozen-by-volts', 'reversed-by-volts', 'proved-spent'].includes(
    ruling.ground,
  );
  return {
    verdict: ruling.verdict,
    suspect: ruling.verdict === 'not-the-battery' ? toldSuspect(ranked, evidence) : null,
    certainty: isSure || share >= SURE_SHARE ? 'sure' : share >= FAIR_SHARE ? 'fairly-sure' : 'unsure',
    share,
    ground: ruling.ground,
    causes: ranked.slice(0, CAUSES_TOLD).map(([cause, held]) => ({ cause, share: held })),
    ledger: ledgerOf(steps, evidence, ruling.causes),
    deciding:
      facts.stops.length > 0 ? null : decidingCheck(crowd, weighed, evidence, facts, tools, rules, ruling),
    followUps: followUps(ruling.verdict, evidence, facts, rules),
  };
}

function suspectFrom(ranked: readonly (readonly [Cause, number])[]): Suspect | null {
  const found = ranked.find(([cause]) => SUSPECT_OF[cause] !== null);
  return found ? SUSPECT_OF[found[0]] : null;
}

/** A charging fault with a bad belt is told as the belt. */
function toldSuspect(
  ranked: readonly (readonly [Cause, number])[],
  evidence: readonly DiagnosisEvidence[],
): Suspect | null {
  const suspect = suspectFrom(ranked);
  const isBelt = evidence.some((e) => e.check === 'look-belt' && e.found === 'bad');
  return suspect === 'charging' && isBelt ? 'belt' : suspect;
}

function rule(
  shares: Shares,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): Ruling {
  const bad = sumOf(shares, REPLACE_CAUSES);
  const flat = sumOf(shares, FLAT_CAUSES);
  const elsewhere = sumOf(shares, ELSEWHERE);
  const none = shares.get('none') ?? 0;
  if (facts.stops.length > 0) return { verdict: 'unsafe', ground: 'stop-stands', causes: [] };
  const bar = barOf(facts);
  if (bar) return { verdict: 'unsafe', ground: `${bar}-by-volts`, causes: [bar] };
  if ((shares.get('frozen') ?? 0) > 0.5)
    return { verdict: 'unsafe', ground: 'frozen-likely', causes: ['frozen'] };
  const proof = proofOf(evidence, facts, rules);
  if (proof === 'spent' && bad >= CONDEMN_SHARE)
    return { verdict: 'replace-now', ground: 'proved-spent', causes: REPLACE_CAUSES };
  if (proof && bad >= REPLACE_SOON_SHARE)
    return { verdict: 'replace-soon', ground: 'proved-worn', causes: REPLACE_CAUSES };
  if (evidence.length === 0) return { verdict: 'charge-first', ground: 'no-evidence', causes: FLAT_CAUSES };
  const most = Math.max(bad, flat, elsewhere, none);
  if (most === elsewhere) {
    const suspect = suspectFrom([...shares]);
    const behind = ELSEWHERE.filter((c) => SUSPECT_OF[c] === suspect);
    return { verdict: 'not-the-battery', ground: 'fault-elsewhere', causes: behind };
  }
  if (most === bad)
    return {
      verdict: 'charge-first',
      ground: 'likely-but-unproved',
      causes: [...REPLACE_CAUSES, ...FLAT_CAUSES],
    };
  const isCharged = isJudgeable(facts, rules);
  const isSound = showsSound(evidence, facts, rules);
  // What was left on explains a death in service; without it the battery has had its warning.
  const isExplained = (shares.get('left-on') ?? 0) > 0.5;
  if (!isSound && !isExplained && facts.wakes && facts.diedInService)
    return {
      verdict: 'replace-soon',
      ground: 'died-in-service',
      causes: [...REPLACE_CAUSES, ...FLAT_CAUSES],
    };
  if (!isSound && facts.earlierFlatCalls > 0)
    return { verdict: 'replace-soon', ground: 'flat-again', causes: [...REPLACE_CAUSES, ...FLAT_CAUSES] };
  if (isCharged) return { verdict: 'keep', ground: 'sound-and-charged', causes: [...FLAT_CAUSES, 'none'] };
  return { verdict: 'charge-first', ground: 'discharged-not-bad', causes: FLAT_CAUSES };
}

/** What each piece of evidence did to the odds of these causes together, strongest first. */
function ledgerOf(
  steps: Walk['steps'],
  evidence: readonly DiagnosisEvidence[],
  causes: readonly Cause[],
): LedgerLine[] {
  const odds = (count: number): number => {
    const held = causes.reduce((sum, cause) => sum + steps[count]![CAUSES.indexOf(cause)]!, 0);
    return Math.log2(Math.max(held, 1e-9) / Math.max(1 - held, 1e-9));
  };
  if (causes.length === 0) return [];
  return evidence
    .map((piece, i): LedgerLine => ({ ...piece, bits: odds(i + 1) - odds(i) }))
    .filter(({ bits }) => Math.abs(bits) >= LEAST_BITS)
    .sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits));
}

/** The check, among those that can be done here, whose findings are likeliest to overturn the verdict. */
function decidingCheck(
  crowd: Crowd,
  shares: Float64Array,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  tools: readonly Tool[],
  rules: HouseRules,
  now: Ruling,
): DecidingCheck | null {
  const isOther = (then: Ruling): boolean =>
    then.verdict !== now.verdict ||
    (then.verdict === 'not-the-battery' && then.causes.join() !== now.causes.join());
  let best: DecidingCheck | null = null;
  for (const check of checksFor(crowd.profile, tools)) {
    if (evidence.some((e) => e.check === check.id) || check.id === 'symptom') continue;
    let chance = 0;
    for (const { share, after, at } of splitBy(crowd, shares, check)) {
      const found = foundAt(check, at);
      const then = rule(sharesByCause(crowd, after), [...evidence, { check: check.id, found }], facts, rules);
      if (isOther(then)) chance += share;
    }
    if (chance >= DECIDING_LEAST && chance > (best?.chance ?? 0)) best = { check: check.id, chance };
  }
  return best;
}

/** A finding that falls on this outcome: its word, or a figure inside its range. */
function foundAt(check: ReturnType<typeof checksFor>[number], at: number): Found {
  const { edges, outcomes } = check;
  if (!edges) return outcomes[at]!;
  const low = edges[at - 1];
  const high = edges[at];
  const figure = low === undefined ? high! - 0.01 : high === undefined ? low + 0.01 : (low + high) / 2;
  return outcomeIndex(check, figure) === at ? figure : low!;
}

function followUps(
  verdict: VerdictKind,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): FollowUp[] {
  const isRead = facts.restVolts.some((v) => v !== null);
  const isShort = evidence.some((e) => e.check === 'ask-use' && e.found === 'short-trips');
  const monthly: FollowUp[] = isShort ? [{ kind: 'charge-monthly', days: rules.chargeMonthlyDays }] : [];
  switch (verdict) {
    case 'keep':
      return [...monthly, { kind: 'inspect', days: rules.inspectDays }];
    case 'charge-first':
      return [{ kind: 'charge', days: 0 }, { kind: 'recheck', days: rules.recheckDays }, ...monthly];
    case 'replace-soon':
      return [{ kind: 'replace', days: rules.replaceSoonDays }];
    case 'replace-now':
      return [{ kind: 'replace', days: 0 }];
    case 'not-the-battery':
      return [
        { kind: 'workshop', days: 0 },
        ...(isRead ? [{ kind: 'recheck', days: rules.recheckDays } as const] : []),
      ];
    case 'unsafe':
      return [{ kind: 'workshop', days: 0 }];
  }
}
