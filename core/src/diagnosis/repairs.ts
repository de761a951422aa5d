import type { Machine } from '../machine/index.js';
import type { Cause, DiagnosisProfile } from './causes.js';
import { type CheckId, checkOf, type Found } from './checks/index.js';
import { soundCharging } from './draw-hidden.js';
import { cranksOf, type HiddenMachine, SOUND_OHMS } from './hidden.js';
import type { RepairKind } from './vocabulary.js';
import { isAtFault } from './walk-round.js';

export const JOINT_SIDES = ['plus', 'minus'] as const;
export type JointSide = (typeof JOINT_SIDES)[number];

/** One repair: what was done, and to which. */
export interface Repair {
  readonly kind: RepairKind;
  /** Of a joint. */
  readonly side?: JointSide;
  /** The look that showed it, of a switch. */
  readonly check?: CheckId;
}

/** The batteries were charged to full and stood for a day: what is read then tells of them charged. */
export interface Recharge {
  readonly kind: 'battery-charged';
  /** The points at which they are read then. */
  readonly tempC: number;
}

/** The mark between evidence found before it and evidence found after it. */
export type Change = Repair | Recharge;

/** Charge of a sound battery a day after it was full. */
const RESTED_SOC = 0.97;
/** Loss of a day each time that its resistance has grown, of its charge; sulphated plates leak away far more. */
const DAY_COSTS = { worn: 0.02, sulphated: 0.1 } as const;
const DAY_HOURS = 24;

/** Repairs that are made at one post of the battery. */
export const JOINT_REPAIRS: readonly RepairKind[] = ['joint-cleaned', 'clamp-resized', 'post-sleeved'];
/** Repairs with a spanner on what carries the starter's amps, or a hand at the belt: nothing may be joined or turn meanwhile. */
const AT_STANDSTILL: readonly RepairKind[] = [
  ...JOINT_REPAIRS,
  'strap-cleaned',
  'fuse-renewed',
  'belt-tightened',
];
/** A drop of this much while it cranks is worth cleaning, V; less is a sound joint: the first edge of the check itself. */
export const [WORTH_CLEANING_VOLTS = 0] = checkOf('joint-plus').edges ?? [];

/** True for a repair during which nothing may be joined. */
export const needsStandstill = ({ kind }: Pick<Repair, 'kind'>): boolean => AT_STANDSTILL.includes(kind);

/** True when a repair says all that it must: a joint its side, a switch the look that found it. */
export function isWhole({ kind, side, check }: Repair): boolean {
  if (JOINT_REPAIRS.includes(kind)) return side !== undefined;
  return kind !== 'switch-set' || (check !== undefined && checkOf(check).mendedBy === 'switch-set');
}

/** Checks that show what a repair mends, and are read again after it. */
export function shownBy({ kind, side, check }: Repair): readonly CheckId[] {
  switch (kind) {
    case 'joint-cleaned':
    case 'clamp-resized':
    case 'post-sleeved':
      return ['look-joints', side === 'minus' ? 'joint-minus' : 'joint-plus', 'starter-stud'];
    case 'strap-cleaned':
      return ['joint-minus', 'starter-stud'];
    case 'fuse-renewed':
      return ['main-fuse', 'isolator-fuse'];
    case 'isolator-on':
      return ['isolator', 'isolator-fuse'];
    case 'stop-released':
      return ['emergency-stop', 'isolator-fuse'];
    case 'switch-set':
      return check ? [check, checkOf(check).partOf ?? 'interlocks'] : [];
    case 'belt-tightened':
      return ['look-belt', 'charging', 'charging-loaded'];
  }
}

/** Checks that read a battery, or through it. */
const OF_THE_CHARGE: readonly CheckId[] = [
  'rest',
  'string-balance',
  'key-on',
  'try-alone',
  'crank',
  'recovery',
  'conductance',
  'load-test',
  'acceptance',
  'specific-gravity',
  'with-help',
  'promise',
];

/** A try or a reading under the starter's amps tells of another circuit once that circuit was mended. */
const OF_THE_CIRCUIT: readonly CheckId[] = [
  'try-alone',
  'crank',
  'recovery',
  'with-help',
  'promise',
  'key-on',
  'load-test',
  'joint-plus',
  'joint-minus',
  'starter-stud',
];

/**
 * True when a check may find something else after the change than before it.
 *
 * @example changes({ kind: 'battery-charged' }, 'rest') // => true
 */
export function changes(repair: Change, check: CheckId): boolean {
  if (repair.kind === 'battery-charged') return OF_THE_CHARGE.includes(check);
  return (
    shownBy(repair).includes(check) || (repair.kind !== 'belt-tightened' && OF_THE_CIRCUIT.includes(check))
  );
}

/** The causes that a change takes away. */
export function curesOf(change: Change): readonly Cause[] {
  if (change.kind === 'battery-charged') return ['discharged', 'left-on', 'frozen'];
  const { kind, side, check } = change;
  const joint: Cause = side === 'minus' ? 'joint-negative' : 'joint-positive';
  switch (kind) {
    case 'joint-cleaned':
      return [joint];
    case 'clamp-resized':
    case 'post-sleeved':
      return ['joint-loose', joint];
    case 'strap-cleaned':
      return ['cable'];
    case 'fuse-renewed':
    case 'isolator-on':
    case 'stop-released':
      return ['main-fuse'];
    case 'switch-set':
      return check === 'fuel-tap' ? ['fuel'] : ['interlock'];
    case 'belt-tightened':
      return ['charging'];
  }
}

/** A sound joint or cable, ohms: the middle of what is drawn. */
const SOUND = (SOUND_OHMS[0] + SOUND_OHMS[1]) / 2;

/** Returns the causes that a repair takes away on this machine. */
function goneFrom(hidden: HiddenMachine, repair: Repair): readonly Cause[] {
  const sideOhms = repair.side === 'minus' ? hidden.minusOhms : hidden.plusOhms;
  return curesOf(repair).filter((cause) => {
    if (!hidden.holds.includes(cause)) return false;
    // The clamp at its stop may be the one on the other post; a charging fault may be no belt.
    if (cause === 'joint-loose') return sideOhms > SOUND_OHMS[1];
    return cause !== 'charging' || hidden.beltBad;
  });
}

/** The same machine a day after its batteries were full: what leaks, drains or is shorted shows. */
function recharged(hidden: HiddenMachine, charge: Recharge, profile: DiagnosisProfile): HiddenMachine {
  const { tempC } = charge;
  const gone = curesOf(charge);
  const isSulphated = hidden.holds.includes('sulphated');
  const drainAh = hidden.holds.includes('drain') ? hidden.drainAmps * DAY_HOURS : 0;
  const batteries = hidden.batteries.map(({ overDischargedVolts: _deep, ...state }) => {
    const lost = (state.ageing - 1) * (isSulphated ? DAY_COSTS.sulphated : DAY_COSTS.worn);
    const soc = Math.max(0, RESTED_SOC - lost - drainAh / profile.rating.capacityAh);
    return { ...state, soc, tempC };
  });
  const charged = {
    ...hidden,
    batteries,
    holds: hidden.holds.filter((cause) => !gone.includes(cause)),
  };
  return { ...charged, ...cranksOf(charged, { ...profile, tempC }) };
}

/** The same machine after a change: what was mended is sound, and everything that rests on it is solved anew. */
export function repaired(hidden: HiddenMachine, repair: Change, profile: DiagnosisProfile): HiddenMachine {
  if (repair.kind === 'battery-charged') return recharged(hidden, repair, profile);
  const gone = goneFrom(hidden, repair);
  if (gone.length === 0) return hidden;
  const has = (...causes: Cause[]): boolean => causes.some((cause) => gone.includes(cause));
  const isJoint = JOINT_REPAIRS.includes(repair.kind);
  const mended: HiddenMachine = {
    ...hidden,
    holds: hidden.holds.filter((cause) => !gone.includes(cause)),
    ...(isJoint && (repair.side === 'minus' ? { minusOhms: SOUND } : { plusOhms: SOUND })),
    ...(has('cable') && { cableOhms: 2 * SOUND }),
    ...(has('main-fuse') && { open: false }),
    ...(has('interlock', 'fuel') && { held: 'no' }),
    ...(has('charging') && { ...soundCharging(profile), beltBad: false }),
  };
  return { ...mended, ...cranksOf(mended, profile) };
}

/** A repair that what was found asks for, with the check that found it. */
export interface RepairOffered {
  readonly repair: Repair;
  readonly check: CheckId;
}

const of = (check: CheckId, kind: RepairKind, side?: JointSide): RepairOffered => ({
  check,
  repair: { kind, ...(side && { side }), ...(kind === 'switch-set' && { check }) },
});

/**
 * Returns the repairs that fit the findings, likeliest first. A fault that only a workshop mends has none.
 *
 * @param findings the latest finding of each check
 */
export function repairsFor(
  findings: Readonly<Partial<Record<CheckId, Found>>>,
  { engine }: Pick<Machine, 'engine'>,
): RepairOffered[] {
  const offered: RepairOffered[] = [];
  for (const [check, found] of Object.entries(findings) as [CheckId, Found][]) {
    const { mendedBy } = checkOf(check);
    if (mendedBy && isAtFault(check, found)) offered.push(of(check, mendedBy));
  }
  const isLost = (check: CheckId): boolean => isBadDrop(findings[check]);
  const sides = JOINT_SIDES.filter((side) => isLost(side === 'plus' ? 'joint-plus' : 'joint-minus'));
  const looked = findings['look-joints'];
  if (looked === 'turns-by-hand')
    for (const kind of JOINT_REPAIRS)
      for (const side of JOINT_SIDES) offered.push(of('look-joints', kind, side));
  if (looked === 'rust' && engine) offered.push(of('look-joints', 'strap-cleaned'));
  if ((looked === 'deposits' || looked === 'rust') && sides.length === 0)
    for (const side of JOINT_SIDES) offered.push(of('look-joints', 'joint-cleaned', side));
  for (const side of sides)
    offered.push(of(side === 'plus' ? 'joint-plus' : 'joint-minus', 'joint-cleaned', side));
  // The meter there reads joint and strap together.
  if (engine && isLost('joint-minus')) offered.push(of('joint-minus', 'strap-cleaned'));
  return offered;
}

function isBadDrop(found: Found | undefined): boolean {
  if (found === undefined) return false;
  return typeof found === 'number' ? found >= WORTH_CLEANING_VOLTS : found !== 'good';
}
