import { ageingOfStrength, WORN_BELOW_SHARE } from '../battery/index.js';
import {
  asFound,
  BATTERY_CONDITIONS,
  type BatteryCondition,
  type Cause,
  CAUSES,
  type Change,
  type CheckId,
  checkOf,
  checksFor,
  conditionShares,
  type Crowd,
  curesOf,
  type DiagnosisEvidence,
  type Found,
  type Held,
  heldBy,
  outcomeIndex,
  outcomeOf,
  type Repair,
  REPLACE_CAUSES,
  shareHeld,
  shareOfAny,
  sharesByCause,
  splitBy,
  standingEvidence,
  stillOpen,
  type Suspect,
  SUSPECT_OF,
  SUSPECTS,
  type Tool,
  type Walk,
  walk,
} from '../diagnosis/index.js';
import type { HouseRules } from '../rules/index.js';
import { barOf, type Case, mayBeJudged, silentVolts, STOP_OF_BAR } from './case.js';
import { cellsApart, proofOf, showsSound } from './proof.js';

export const VERDICTS = [
  'keep',
  'charge-first',
  'replace-soon',
  'replace-now',
  'not-the-battery',
  'repaired',
  'not-known',
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
  'cells-apart',
  'flat-again',
  'died-in-service',
  'sound-and-charged',
  'fault-elsewhere',
  'mended-here',
  'load-it-now',
  'undecided',
  'no-evidence',
] as const;
export type Ground = (typeof GROUNDS)[number];

export const FOLLOW_UPS = [
  'recheck',
  'replace',
  'inspect',
  'workshop',
  'charge',
  'charge-monthly',
  'maintainer',
] as const;

/** A date to keep, in days from the verdict. */
export interface FollowUp {
  readonly kind: (typeof FOLLOW_UPS)[number];
  readonly days: number;
}

/** One line of the ledger. */
export interface LedgerLine extends DiagnosisEvidence {
  /** How far it moved the odds of what the verdict rests on: doublings for, halvings against as negative. */
  readonly bits: number;
}

/** The one check that is likeliest to change the verdict, and how likely. */
export interface DecidingCheck {
  readonly check: CheckId;
  /** At this battery of a string, where others were read by themselves. */
  readonly battery?: number;
  readonly chance: number;
}

export interface VerdictRecord {
  readonly verdict: VerdictKind;
  /** The part to blame; beside a verdict on the battery, what must be mended as well. */
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
  /** Of a string, battery by battery from the chassis side; left out where there is one, and in older logs. */
  readonly batteries?: readonly BatteryStanding[];
  /** Repairs on the spot of parts that were likely at fault, whatever else the verdict asks for; left out where there were none. */
  readonly repaired?: readonly Repair[];
}

/** How one battery of a string stands by everything that was found, and what tells it from sound. */
export interface BatteryStanding {
  readonly condition: BatteryCondition;
  /** Of the likeliest condition. */
  readonly share: number;
  readonly ledger: readonly LedgerLine[];
}

/** A battery is condemned only when the causes that a new one cures hold this much together. */
export const CONDEMN_SHARE = 0.9;
/** Proof of wear and this much together ask for another battery in good time. */
const REPLACE_SOON_SHARE = 0.82;
/** Proof that it is spent, where the share alone is too low. It asks for this much of its being worn too. */
const WORN_IF_SPENT_SHARE = 0.86;
/** Another part is blamed only from this much on, and only where it leads. */
const ELSEWHERE_SHARE = 0.5;
/** The battery's own state is spoken of only when what can be behind it holds this much together. */
const BATTERY_SHARE = 0.5;
/**
 * A sound and charged battery is kept as long as other parts together are no likelier at fault than this; then that is looked for first.
 */
const KEEP_SUSPECT_MOST = 0.5;
/** Unread in the cold it is treated as frozen from this much on. */
const FROZEN_SHARE = 0.5;
/** A consumer left on explains a death in service from this much on. */
const EXPLAINED_SHARE = 0.5;
/**
 * A second flat call, or a death in service, asks for another battery only in one case. The share of the causes that it cures leads, and
 * would condemn any battery: no test has proved it, and a charge and a day would.
 */
const LEANS_SHARE = CONDEMN_SHARE;
/** Shares at which a verdict is called sure and fairly sure. */
const SURE_SHARE = 0.9;
const FAIR_SHARE = 0.7;
/** A check that changes the verdict more rarely than this does not decide it. */
const DECIDING_LEAST = 0.05;
const CAUSES_TOLD = 5;
/** A move of the odds smaller than this is no evidence. */
const LEAST_BITS = 0.05;

const FLAT_CAUSES: readonly Cause[] = ['discharged', 'left-on', 'string-weak', 'guard-open'];

/**
 * Causes that pull a battery's figures down as wear does: a tight engine and a starter that binds take far more amps. A bad joint within a
 * meter's clamps counts as the battery's own.
 */
const MASKING_CAUSES: readonly Cause[] = [
  'joint-positive',
  'joint-negative',
  'joint-loose',
  'cable',
  'starter',
  'seized',
];

/** All that is the battery's own. */
const BATTERY_CAUSES: readonly Cause[] = [...REPLACE_CAUSES, ...FLAT_CAUSES];

const ELSEWHERE: readonly Cause[] = CAUSES.filter((c) => SUSPECT_OF[c] !== null);

/** A verdict without its ledger. */
interface Ruling {
  readonly verdict: VerdictKind;
  readonly ground: Ground;
  /** The causes that it rests on. */
  readonly causes: readonly Cause[];
  /** It rests on these causes being absent: a battery is kept because nothing that a new one cures is there. */
  readonly isAgainst?: boolean;
  /** The share that it rests on, where that is more than these causes: a battery under four fifths of its strength. */
  readonly share?: number;
  /** Another part that is to blame, or must be mended as well. */
  readonly suspect: Suspect | null;
  /** It rests on what was wrong before it was mended. */
  readonly wasMended?: boolean;
}

/**
 * The verdict over everything that was found: what the causes hold together, bounded by the rule that a discharged battery is never
 * called bad without proof.
 *
 * @param crowd after the repairs of the job, where there were any
 */
export function conclude(
  crowd: Crowd,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  tools: readonly Tool[],
  rules: HouseRules,
): VerdictRecord {
  const { shares, steps } = walk(crowd, evidence);
  const ruling = rule(crowd, shares, evidence, facts, rules);
  const found = ruling.wasMended ? asFound(crowd) : crowd;
  const held = shareOfAny(found, shares, ruling.causes);
  const repaired = mendedHere(crowd, shares);
  const share = ruling.verdict === 'unsafe' ? 1 : (ruling.share ?? (ruling.isAgainst ? 1 - held : held));
  const isSure =
    ['stop-stands', 'frozen-by-volts', 'reversed-by-volts'].includes(ruling.ground) ||
    (ruling.ground === 'proved-spent' && share >= CONDEMN_SHARE);
  return {
    verdict: ruling.verdict,
    suspect: ruling.suspect === 'charging' && isBeltBad(evidence) ? 'belt' : ruling.suspect,
    certainty:
      ruling.verdict === 'not-known' ? 'unsure' : isSure ? 'sure' : boundedCertainty(ruling, share, evidence),
    share,
    ground: ruling.ground,
    causes: [...sharesByCause(crowd, shares)]
      .slice(0, CAUSES_TOLD)
      .map(([cause, held]) => ({ cause, share: held })),
    ledger: ledgerOf(found, steps, evidence, ruling),
    deciding:
      facts.stops.length > 0 ? null : decidingCheck(crowd, shares, evidence, facts, tools, rules, ruling),
    followUps: followUps(ruling, evidence, facts, rules),
    ...(crowd.profile.systemVolts === 24 && { batteries: standings(crowd, steps, evidence) }),
    ...(repaired.length > 0 && { repaired }),
  };
}

/** The repairs that took away what was likely wrong. */
const mendedHere = (crowd: Crowd, shares: Float64Array): Repair[] =>
  crowd.repairs
    .filter(isRepair)
    .filter((repair) => shareOfAny(asFound(crowd), shares, curesOf(repair)) >= ELSEWHERE_SHARE);

const isRepair = (change: Change): change is Repair => change.kind !== 'battery-charged';

/** Evidence that a repair held: it starts by itself since, or its charging is in the band again. */
const showsItHeld = ({ check, found }: DiagnosisEvidence): boolean =>
  checkOf(check).holdsWhen === outcomeOf(check, found);

/** Each battery of a string by itself. */
function standings(
  crowd: Crowd,
  steps: Walk['steps'],
  evidence: readonly DiagnosisEvidence[],
): BatteryStanding[] {
  return Array.from({ length: crowd.profile.systemVolts / 12 }, (_, battery) => {
    const told = conditionShares(crowd, steps.at(-1)!, battery);
    const condition = BATTERY_CONDITIONS.reduce((a, b) => (told[b] > told[a] ? b : a));
    const held = (count: number): number => conditionShares(crowd, steps[count]!, battery)[condition];
    return { condition, share: told[condition], ledger: ledgerBy(evidence, held) };
  });
}

function certaintyOf(share: number): Certainty {
  if (share >= SURE_SHARE) return 'sure';
  return share >= FAIR_SHARE ? 'fairly-sure' : 'unsure';
}

/** A charging fault with a bad belt is told as the belt. */
const isBeltBad = (evidence: readonly DiagnosisEvidence[]): boolean =>
  evidence.some((e) => e.check === 'look-belt' && e.found === 'bad');

/** Checks that find an interlock itself, or tell it from a dead starter. */
const TELLS_OF_INTERLOCKS: readonly CheckId[] = ['starter-stud', 'interlocks'];

/**
 * How sure a verdict may call itself. What is proved is at least fairly sure. A dead starter without a click looks like an interlock. So an
 * interlock is never sure before the stud was read or the switch found.
 */
function boundedCertainty(
  { ground, suspect }: Ruling,
  share: number,
  evidence: readonly DiagnosisEvidence[],
): Certainty {
  const certainty = certaintyOf(share);
  if (ground === 'proved-spent') return 'fairly-sure';
  const isTold = evidence.some(
    ({ check, found }) =>
      TELLS_OF_INTERLOCKS.includes(check) && (check !== 'interlocks' || found === checkOf(check).outcomes[0]),
  );
  return suspect === 'interlock' && certainty === 'sure' && !isTold ? 'fairly-sure' : certainty;
}

/** Each part with the causes that are told as it. */
const PARTS = SUSPECTS.map((suspect) => ({
  suspect,
  causes: CAUSES.filter((c) => SUSPECT_OF[c] === suspect),
}));

/** The other part that is likeliest to be at fault. */
function leadingPart(held: Held): (typeof PARTS)[number] & { share: number } {
  return PARTS.map((part) => ({ ...part, share: shareHeld(held, part.causes) })).reduce((a, b) =>
    b.share > a.share ? b : a,
  );
}

/** A battery whose resistance has grown further has less than the trade's four fifths of its strength left. */
const UNDER_FOUR_FIFTHS_FROM = ageingOfStrength(WORN_BELOW_SHARE);

/** The machines of a crowd whose battery is worn by the trade's measure, or to be replaced anyway; worked out once. */
const wornKnown = new WeakMap<Crowd['machines'], readonly number[]>();

function wornIn({ machines }: Crowd): readonly number[] {
  const known = wornKnown.get(machines);
  if (known) return known;
  const worn = machines.flatMap(({ batteries, holds }, i) =>
    batteries.some((b) => b.ageing > UNDER_FOUR_FIFTHS_FROM) || holds.some((c) => REPLACE_CAUSES.includes(c))
      ? [i]
      : [],
  );
  wornKnown.set(machines, worn);
  return worn;
}

/** The share of those. */
const shareOfWorn = (crowd: Crowd, shares: Float64Array): number =>
  wornIn(crowd).reduce((sum, i) => sum + shares[i]!, 0);

function rule(
  crowd: Crowd,
  shares: Float64Array,
  found: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): Ruling {
  const evidence = standingEvidence(found, crowd.repairs);
  const held = heldBy(crowd, shares);
  /** A ruling that names no part: unsafe, or not known yet. */
  const alone = (verdict: VerdictKind, ground: Ground, causes: readonly Cause[]): Ruling => ({
    verdict,
    ground,
    causes,
    suspect: null,
  });
  const bar = barOf(facts) ?? barOf({ ...facts, restVolts: silentVolts(evidence, facts.tempC) });
  // The volts explain a stop that they show; every other stop explains itself.
  if (facts.stops.some((stop) => !bar || stop !== STOP_OF_BAR[bar]))
    return alone('unsafe', 'stop-stands', []);
  if (bar) return alone('unsafe', `${bar}-by-volts`, [bar]);
  const isRead = facts.restVolts.some((volts) => volts !== null);
  if (!isRead && shareHeld(held, ['frozen']) > FROZEN_SHARE)
    return alone('unsafe', 'frozen-likely', ['frozen']);
  if (found.length === 0) return alone('not-known', 'no-evidence', FLAT_CAUSES);

  const bad = shareHeld(held, REPLACE_CAUSES);
  const flat = shareHeld(held, FLAT_CAUSES, REPLACE_CAUSES);
  const lead = leadingPart(held);
  // Faults drag others along: what emptied or spoiled the battery is mended as well.
  const also = lead.share >= ELSEWHERE_SHARE ? lead.suspect : null;
  const told: typeof alone = (...ruling) => ({ ...alone(...ruling), suspect: also });
  // A day after a full charge it is judged by what it shows: what else is likely then turns with every volt, and made worse figures milder.
  const isMasked = !facts.isRested && shareHeld(held, MASKING_CAUSES) >= ELSEWHERE_SHARE;
  const proof = proofOf(isMasked ? evidence.filter((e) => e.check !== 'crank') : evidence, facts, rules);
  // A day after a full charge, and by its cells, a battery is judged by what it shows: no share of causes outweighs that.
  const cells = cellsApart(evidence, facts, rules);
  const isDecisive = facts.isRested === true || cells === 'bad';
  if (proof === 'spent' && (bad >= CONDEMN_SHARE || isDecisive))
    return told('replace-now', 'proved-spent', REPLACE_CAUSES);
  // A battery that is proved spent and not quite likely enough for that is worn at the least.
  const isPulledDown = isMasked && proof === 'worn';
  if (proof && !isPulledDown) {
    const worn = shareOfWorn(crowd, shares);
    const isBound = facts.isRested === true && proof === 'worn';
    if (isBound || worn >= (proof === 'worn' ? REPLACE_SOON_SHARE : WORN_IF_SPENT_SHARE))
      return { ...told('replace-soon', 'proved-worn', REPLACE_CAUSES), share: worn };
  }
  // A charge evens cells that are only uneven: cells apart after it are bad. No other fault takes the blame before that.
  if (cells === 'doubtful') return told('charge-first', 'cells-apart', REPLACE_CAUSES);
  // Mended first, the battery is tested again: what is a little low now may be the other fault's.
  if (also && (lead.share >= Math.max(bad, flat) || isPulledDown))
    return told('not-the-battery', 'fault-elsewhere', lead.causes);
  const repairs = mendedHere(crowd, shares);
  const isWell = (): boolean => shareHeld(held, BATTERY_CAUSES) < BATTERY_SHARE;
  if (repairs.length > 0 && evidence.some(showsItHeld) && isWell()) {
    const causes = [...new Set(repairs.flatMap(curesOf))];
    return { ...alone('repaired', 'mended-here', causes), suspect: SUSPECT_OF[causes[0]!], wasMended: true };
  }

  const isCharged = mayBeJudged(facts, rules);
  const isSound = showsSound(evidence, facts, rules);
  const startsAlone = evidence.some((e) => e.check === 'try-alone' && e.found === 'started');
  if (isCharged && bad < BATTERY_SHARE && (isSound || startsAlone)) {
    // A sound battery that does not start has its fault elsewhere, and that is not known yet. A recheck asks of the battery alone.
    const isElsewhere = !facts.isRested && !startsAlone && shareHeld(held, ELSEWHERE) > KEEP_SUSPECT_MOST;
    return isElsewhere
      ? alone('not-known', 'undecided', lead.causes)
      : { ...told('keep', 'sound-and-charged', REPLACE_CAUSES), isAgainst: true };
  }
  if (isWell()) return alone('not-known', 'undecided', lead.causes);
  if (isCharged) return alone('not-known', 'load-it-now', BATTERY_CAUSES);
  // A consumer left on explains a death in service; without it the battery has had its warning.
  const isExplained = shareHeld(held, ['left-on']) > EXPLAINED_SHARE;
  const leans = !isSound && !also && bad >= Math.max(flat, LEANS_SHARE);
  if (leans && facts.earlierFlatCalls > 0) return told('replace-soon', 'flat-again', BATTERY_CAUSES);
  if (leans && !isExplained && facts.wakes && facts.diedInService)
    return told('replace-soon', 'died-in-service', BATTERY_CAUSES);
  return bad > flat
    ? told('charge-first', 'likely-but-unproved', BATTERY_CAUSES)
    : told('charge-first', 'discharged-not-bad', FLAT_CAUSES);
}
/** Returns the effect of each piece of evidence on the odds of the verdict's ground, strongest first. */
function ledgerOf(
  crowd: Crowd,
  steps: Walk['steps'],
  evidence: readonly DiagnosisEvidence[],
  { causes, isAgainst = false }: Ruling,
): LedgerLine[] {
  if (causes.length === 0) return [];
  return ledgerBy(evidence, (count) => {
    const held = shareOfAny(crowd, steps[count]!, causes);
    return isAgainst ? 1 - held : held;
  });
}

/** @param heldAfter share of what is weighed after so many pieces of evidence */
function ledgerBy(
  evidence: readonly DiagnosisEvidence[],
  heldAfter: (count: number) => number,
): LedgerLine[] {
  const odds = Array.from({ length: evidence.length + 1 }, (_, count) => {
    const held = heldAfter(count);
    return Math.log2(Math.max(held, 1e-9) / Math.max(1 - held, 1e-9));
  });
  return evidence
    .map((piece, i): LedgerLine => ({ ...piece, bits: odds[i + 1]! - odds[i]! }))
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
  const repaired = crowd.repairs.length;
  let best: DecidingCheck | null = null;
  for (const check of checksFor(crowd.profile, tools)) {
    const [open] = check.id === 'symptom' || check.isVolunteered ? [] : stillOpen(check, evidence, crowd);
    if (!open) continue;
    const { battery } = open;
    let chance = 0;
    for (const { share, after, at } of splitBy(crowd, shares, check, battery)) {
      const found = foundAt(check, at);
      const piece = { check: check.id, found, repaired, ...(battery !== undefined && { battery }) };
      const then = rule(crowd, after, [...evidence, piece], facts, rules);
      if (isOther(then)) chance += share;
    }
    if (chance >= DECIDING_LEAST && chance > (best?.chance ?? 0))
      best = { check: check.id, chance, ...(battery !== undefined && { battery }) };
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
  { verdict, suspect }: Ruling,
  evidence: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): FollowUp[] {
  const isRead = facts.restVolts.some((v) => v !== null);
  const isShort = evidence.some((e) => e.check === 'ask-use' && e.found === 'short-trips');
  const workshop: FollowUp[] = suspect ? [{ kind: 'workshop', days: 0 }] : [];
  const monthly: FollowUp[] = isShort ? [{ kind: 'charge-monthly', days: rules.chargeMonthlyDays }] : [];
  // An owner who lets it stand for weeks will find it flat again, however sound it is.
  const standing: FollowUp[] = evidence.some((e) => e.check === 'ask-use' && e.found === 'stood-weeks')
    ? [{ kind: 'maintainer', days: 0 }]
    : [];
  switch (verdict) {
    case 'keep':
    case 'repaired':
      return [...monthly, ...standing, { kind: 'inspect', days: rules.inspectDays }];
    case 'charge-first':
      return [
        { kind: 'charge', days: 0 },
        { kind: 'recheck', days: rules.recheckDays },
        ...workshop,
        ...monthly,
        ...standing,
      ];
    case 'replace-soon':
      return [{ kind: 'replace', days: rules.replaceSoonDays }, ...workshop];
    case 'replace-now':
      return [{ kind: 'replace', days: 0 }, ...workshop];
    case 'not-known':
      return [{ kind: 'recheck', days: rules.recheckDays }];
    case 'not-the-battery':
      return [
        { kind: 'workshop', days: 0 },
        ...(isRead ? [{ kind: 'recheck', days: rules.recheckDays } as const] : []),
      ];
    case 'unsafe':
      return [{ kind: 'workshop', days: 0 }];
  }
}
