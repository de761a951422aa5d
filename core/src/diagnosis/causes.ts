import { isLeadAcid } from '../battery/index.js';
import type { Machine, MachineClass } from '../machine/index.js';
import type { Suspect } from './vocabulary.js';

export const CAUSES = [
  'discharged',
  'left-on',
  'drain',
  'charging',
  'worn',
  'sulphated',
  'dead-cell',
  'reversed',
  'frozen',
  'string-weak',
  'joint-positive',
  'joint-negative',
  'joint-loose',
  'cable',
  'main-fuse',
  'starter',
  'interlock',
  'immobiliser',
  'fuel',
  'traction-flat',
  'converter',
  'charge-point',
  'broken-link',
  'seized',
  'guard-open',
  'not-taught',
  'none',
] as const;
/**
 * Why a machine does not start. `joint-loose` is a clamp at its stop on a worn post; `cable` any cable or body strap; `main-fuse` fuse or
 * isolator; `fuel` fuel or engine; `charge-point` a socket that gives nothing; `broken-link` a link inside the battery that carries a
 * meter's current and no more; `seized` an engine that cannot be turned, or hardly; `guard-open` a lithium battery that shut itself off;
 * `not-taught` a new battery that the vehicle still charges as the old one; `none` no fault found.
 */
export type Cause = (typeof CAUSES)[number];

/** Causes that a new battery cures; for all others a sound battery would be thrown away. */
export const REPLACE_CAUSES: readonly Cause[] = ['worn', 'sulphated', 'dead-cell', 'broken-link', 'reversed'];

/** The facts before anything is asked: the machine, and how cold it is. */
export type DiagnosisProfile = Pick<Machine, 'machineClass' | 'systemVolts' | 'engine'> & {
  readonly rating: Machine['batteries'][number]['rating'];
  readonly tempC: number;
};

interface Prior {
  readonly cause: Cause;
  /** Share of calls to an ordinary cranking vehicle, before anything is known. */
  readonly share: number;
  readonly reason: string;
}

/** How often each cause is behind a call. The trade's rough experience of winter calls; each share can be questioned on its own. */
export const PRIORS: readonly Prior[] = [
  { cause: 'discharged', share: 0.17, reason: 'short trips and standing, worst in the cold' },
  { cause: 'left-on', share: 0.13, reason: 'lamps, ignition or a door left on' },
  { cause: 'worn', share: 0.17, reason: 'most batteries that fail are old, in the first cold week' },
  { cause: 'charging', share: 0.07, reason: 'belt, alternator or regulator, found out by a flat battery' },
  { cause: 'drain', share: 0.05, reason: 'a unit that never sleeps' },
  { cause: 'sulphated', share: 0.04, reason: 'weeks at rest while flat' },
  { cause: 'dead-cell', share: 0.03, reason: 'one cell shorted: the battery is two volts low' },
  { cause: 'reversed', share: 0.004, reason: 'charged the wrong way round: rare, and never to be missed' },
  { cause: 'joint-positive', share: 0.05, reason: 'deposits under a clamp that looks clean' },
  { cause: 'joint-negative', share: 0.05, reason: 'as often as the positive one' },
  { cause: 'joint-loose', share: 0.03, reason: 'worn post or stretched clamp' },
  { cause: 'cable', share: 0.03, reason: 'body strap or starter cable, corroded inside' },
  { cause: 'main-fuse', share: 0.03, reason: 'blown fuse, or an isolator that is off' },
  { cause: 'starter', share: 0.06, reason: 'solenoid or brushes' },
  { cause: 'interlock', share: 0.05, reason: 'selector, clutch, seat or stand' },
  { cause: 'immobiliser', share: 0.03, reason: 'key not read' },
  { cause: 'fuel', share: 0.06, reason: 'empty, waxed, or an engine fault' },
  { cause: 'broken-link', share: 0.012, reason: 'good at rest, nothing under load' },
  { cause: 'seized', share: 0.006, reason: 'a tight engine, water in a cylinder, or a gear left in' },
  { cause: 'guard-open', share: 0, reason: 'only lithium has a guard: its share stands beside the others' },
  { cause: 'not-taught', share: 0.008, reason: 'a new battery charged by the rules of the old one' },
  { cause: 'none', share: 0.015, reason: 'starts as it should when tried' },
];

/** Differences by class, as factors on the shares. */
const CLASS_FACTORS: Partial<Record<MachineClass, Partial<Record<Cause, number>>>> = {
  'ride-on': { interlock: 4, immobiliser: 0, charging: 0.5, 'not-taught': 0 },
  motorcycle: { interlock: 3, sulphated: 3, immobiliser: 0.5, 'not-taught': 0 },
  plant: { interlock: 2, 'main-fuse': 3, immobiliser: 0.3, 'not-taught': 0 },
  truck: { 'main-fuse': 2, immobiliser: 0.5, 'not-taught': 0 },
  genset: { interlock: 2, 'main-fuse': 2, immobiliser: 0, 'not-taught': 0 },
  boat: { 'main-fuse': 3, 'joint-positive': 2, 'joint-negative': 2, immobiliser: 0, 'not-taught': 0 },
};
/** Share of calls to a machine with a lithium battery that has shut itself off. */
const GUARD_OPEN_SHARE = 0.12;
/** Causes that only lead and acid can have. */
const LEAD_ACID_ONLY: readonly Cause[] = ['sulphated', 'dead-cell', 'reversed', 'broken-link'];

/** Share of calls to a string machine with one battery down and the other sound. */
const STRING_WEAK_SHARE = 0.15;

/** Causes that keep an EV or hybrid from waking. */
const WAKING: Partial<Record<Cause, number>> = {
  discharged: 0.25,
  'left-on': 0.12,
  worn: 0.2,
  drain: 0.06,
  'dead-cell': 0.03,
  sulphated: 0.03,
  'main-fuse': 0.04,
  'joint-positive': 0.03,
  'joint-negative': 0.03,
  'traction-flat': 0.1,
  converter: 0.05,
  'charge-point': 0.05,
  'broken-link': 0.01,
  reversed: 0.003,
  none: 0.015,
};

/** Causes that this machine can have, with their shares before anything is asked; they sum to one. */
export function priorsFor({
  machineClass,
  systemVolts,
  engine,
  rating,
}: DiagnosisProfile): ReadonlyMap<Cause, number> {
  const shares = new Map<Cause, number>();
  if (engine === null) {
    for (const [cause, share] of Object.entries(WAKING)) shares.set(cause as Cause, share);
  } else {
    const factors = CLASS_FACTORS[machineClass] ?? {};
    for (const { cause, share } of PRIORS) shares.set(cause, share * (factors[cause] ?? 1));
    if (systemVolts === 24) shares.set('string-weak', STRING_WEAK_SHARE);
  }
  if (!isLeadAcid(rating.chemistry)) {
    if (rating.chemistry === 'lfp') shares.set('guard-open', GUARD_OPEN_SHARE);
    for (const cause of LEAD_ACID_ONLY) shares.delete(cause);
  }
  const sum = [...shares.values()].reduce((a, b) => a + b, 0);
  return new Map([...shares].filter(([, share]) => share > 0).map(([cause, share]) => [cause, share / sum]));
}

/** The suspect of a cause when the battery is not to blame; null when it is the battery, or nothing. */
export const SUSPECT_OF: Readonly<Record<Cause, Suspect | null>> = {
  discharged: null,
  'left-on': null,
  drain: 'drain',
  charging: 'charging',
  worn: null,
  sulphated: null,
  'dead-cell': null,
  reversed: null,
  frozen: null,
  'string-weak': null,
  'joint-positive': 'joint',
  'joint-negative': 'joint',
  'joint-loose': 'joint',
  cable: 'cable',
  'main-fuse': 'interlock',
  starter: 'starter',
  interlock: 'interlock',
  immobiliser: 'interlock',
  fuel: 'fuel-or-engine',
  'traction-flat': 'traction-battery',
  converter: 'traction-battery',
  'charge-point': 'traction-battery',
  'broken-link': null,
  seized: 'fuel-or-engine',
  'guard-open': null,
  'not-taught': 'charging',
  none: null,
};
