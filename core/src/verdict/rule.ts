import { ageingOfStrength, WORN_BELOW_SHARE } from '../battery/index.js';
import {
  asFound,
  type Cause,
  CAUSES,
  type Change,
  checkOf,
  type Crowd,
  curesOf,
  type DiagnosisEvidence,
  type Held,
  heldBy,
  outcomeOf,
  type Repair,
  REPLACE_CAUSES,
  shareHeld,
  shareOfAny,
  validEvidence,
  type Suspect,
  SUSPECT_OF,
  SUSPECTS,
} from '../diagnosis/index.js';
import type { HouseRules } from '../rules/index.js';
import { barOf, type Case, isKnownFlat, mayBeJudged, silentVolts, STOP_OF_BAR } from './case.js';
import { cellsApart, proofOf, showsSound } from './proof.js';
import type { VerdictKind, Ground } from './verdict.js';

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
/** A battery that was read flat is charged before another part takes the blame, unless that part holds this much. */
const BLAME_WHEN_FLAT_SHARE = CONDEMN_SHARE;
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
export interface Ruling {
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

/** The repairs that took away what was likely wrong. */
export const mendedHere = (crowd: Crowd, shares: Float64Array): Repair[] =>
  crowd.repairs
    .filter(isRepair)
    .filter((repair) => shareOfAny(asFound(crowd), shares, curesOf(repair)) >= ELSEWHERE_SHARE);

const isRepair = (change: Change): change is Repair => change.kind !== 'battery-charged';

/** Evidence that a repair held: it starts by itself since, or its charging is in the band again. */
const showsItHeld = ({ check, found }: DiagnosisEvidence): boolean =>
  checkOf(check).holdsWhen === outcomeOf(check, found);

/** Each part with the causes that it stands for. */
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

/** Returns the verdict by shares, proof and the state of the case. */
export function rule(
  crowd: Crowd,
  shares: Float64Array,
  found: readonly DiagnosisEvidence[],
  facts: Case,
  rules: HouseRules,
): Ruling {
  const evidence = validEvidence(found, crowd.repairs);
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
  const withSuspect: typeof alone = (...ruling) => ({ ...alone(...ruling), suspect: also });
  // A day after a full charge it is judged by what it shows: what else is likely then turns with every volt, and made worse figures milder.
  const isMasked = !facts.isRested && shareHeld(held, MASKING_CAUSES) >= ELSEWHERE_SHARE;
  const proof = proofOf(isMasked ? evidence.filter((e) => e.check !== 'crank') : evidence, facts, rules);
  // A day after a full charge, and by its cells, a battery is judged by what it shows: no share of causes outweighs that.
  const cells = cellsApart(evidence, facts, rules);
  const isDecisive = facts.isRested === true || cells === 'bad';
  if (proof === 'spent' && (bad >= CONDEMN_SHARE || isDecisive))
    return withSuspect('replace-now', 'proved-spent', REPLACE_CAUSES);
  // A battery that is proved spent and not quite likely enough for that is worn at the least.
  const isPulledDown = isMasked && proof === 'worn';
  if (proof && !isPulledDown) {
    const worn = shareOfWorn(crowd, shares);
    const isBound = facts.isRested === true && proof === 'worn';
    if (isBound || worn >= (proof === 'worn' ? REPLACE_SOON_SHARE : WORN_IF_SPENT_SHARE))
      return { ...withSuspect('replace-soon', 'proved-worn', REPLACE_CAUSES), share: worn };
  }
  // A charge evens cells that are only uneven: cells apart after it are bad. No other fault takes the blame before that.
  if (cells === 'doubtful') return withSuspect('charge-first', 'cells-apart', REPLACE_CAUSES);
  // Mended first, the battery is tested again: what is a little low now may be the other fault's.
  if (also && (lead.share >= Math.max(bad, flat) || isPulledDown)) {
    // A part that looks like a flat battery does not empty one: the charge comes first, and tells the rest.
    const isLike = lead.causes.every((cause) => MASKING_CAUSES.includes(cause));
    return isLike && isKnownFlat(facts) && lead.share < BLAME_WHEN_FLAT_SHARE
      ? withSuspect('charge-first', 'discharged-not-bad', FLAT_CAUSES)
      : withSuspect('not-the-battery', 'fault-elsewhere', lead.causes);
  }
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
      : { ...withSuspect('keep', 'sound-and-charged', REPLACE_CAUSES), isAgainst: true };
  }
  // It starts by itself and nothing is at fault: what it lacks is charge, and then it is judged.
  if (startsAlone && isRead && !isCharged && !also && bad < BATTERY_SHARE)
    return alone('charge-first', 'discharged-not-bad', FLAT_CAUSES);
  if (isWell()) return alone('not-known', 'undecided', lead.causes);
  if (isCharged) return alone('not-known', 'load-it-now', BATTERY_CAUSES);
  // A consumer left on explains a death in service; without it the battery has had its warning.
  const isExplained = shareHeld(held, ['left-on']) > EXPLAINED_SHARE;
  const leans = !isSound && !also && bad >= Math.max(flat, LEANS_SHARE);
  if (leans && facts.earlierFlatCalls > 0) return withSuspect('replace-soon', 'flat-again', BATTERY_CAUSES);
  if (leans && !isExplained && facts.wakes && facts.diedInService)
    return withSuspect('replace-soon', 'died-in-service', BATTERY_CAUSES);
  return bad > flat
    ? withSuspect('charge-first', 'likely-but-unproved', BATTERY_CAUSES)
    : withSuspect('charge-first', 'discharged-not-bad', FLAT_CAUSES);
}
