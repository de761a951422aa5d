import { strengthShare } from '../battery/index.js';
import { bitsOf, type Cause, type Crowd, heldBy, normalise, shareHeld } from '../diagnosis/index.js';
import { parameter } from '../quantities/index.js';

/** The strength of a battery, as a share of its rating, and how well it is known. */
export interface KnownStrength {
  readonly share: number;
  readonly spread: number;
}

/** The belief that earlier jobs of a vehicle left: a few numbers that their logs hold, aged to the day of this one. */
export interface EarlierBelief {
  /** When the last of them was closed, ISO 8601; null where none was. */
  readonly closedAt: string | null;
  /** Days from then to this job. */
  readonly days: number;
  /** The causes that it held likeliest, its repairs counted. */
  readonly causes: readonly { readonly cause: Cause; readonly share: number }[];
  /** Of each battery that sits in it, from the chassis side, on the day of this job; null of one that nobody has judged. */
  readonly strengths: readonly (KnownStrength | null)[];
}

/** Parts that stay as they were until somebody mends them. All else is of the day, or of a battery, which is carried by its strength. */
export const STAYING_CAUSES: readonly Cause[] = [
  'drain',
  'charging',
  'joint-positive',
  'joint-negative',
  'joint-loose',
  'cable',
  'starter',
  'seized',
  'converter',
];

/** Parts found at fault that still are on the next day. */
export const STILL_AT_FAULT = parameter(0.6, {
  id: 'carry.stillAtFault',
  name: 'parts found at fault that nobody has mended by the next day',
  low: 0.4,
  high: 0.8,
  unit: 'of those found',
  reason: 'Owners drive to a workshop soon, or not at all.',
});
/** In so many days half of those are mended. */
export const MENDED_HALF_DAYS = parameter(120, {
  id: 'carry.halfDays',
  name: 'days in which half of the rest are mended',
  low: 45,
  high: 240,
  unit: 'days',
  reason: 'The next service finds them.',
});
/** A battery is another than the record says. */
export const CHANGED_UNTOLD = parameter(0.1, {
  id: 'carry.changedUntold',
  name: 'batteries that were changed and nobody told',
  low: 0.04,
  high: 0.25,
  unit: 'of batteries',
  reason: 'Owners and other workshops fit batteries too.',
});
/** The width within which a machine's strength counts beside the spread of the record, as a share of the rating. */
const KERNEL_SHARE = 0.06;

/**
 * Returns the share of the parts found at fault that still are after so many days.
 *
 * @example stillAtFault(120) // => 0.3
 */
export const stillAtFault = (days: number): number =>
  STILL_AT_FAULT * 0.5 ** (Math.max(0, days) / MENDED_HALF_DAYS);

/**
 * Begins a crowd from the belief that earlier jobs of its vehicle left. Use it before any finding of this job, and before its repairs.
 *
 * @returns the same machines with other shares
 */
export function carriedInto(crowd: Crowd, { days, causes, strengths }: EarlierBelief): Crowd {
  const stands = stillAtFault(days);
  const before = heldBy(crowd, crowd.shares);
  const now = causes.flatMap(({ cause, share }) => {
    const usual = shareHeld(before, [cause]);
    if (!STAYING_CAUSES.includes(cause) || usual <= 0) return [];
    const held = stands * share + (1 - stands) * usual;
    return [{ bit: bitsOf([cause]), with: held / usual, without: (1 - held) / (1 - usual) }];
  });
  const count = crowd.profile.systemVolts / 12;
  const nearTo = strengths.slice(0, count).map((known, battery) => known && nearness(crowd, battery, known));
  const shares = crowd.shares.map((share, i) => {
    const parts = now.reduce(
      (all, c) => all * ((crowd.holdsAt[i]! & c.bit) !== 0 ? c.with : c.without),
      share,
    );
    return nearTo.reduce((all, near) => (near ? all * near[i]! : all), parts);
  });
  return { ...crowd, shares: normalise(shares), known: new Map() };
}

/** Returns how near each machine's battery is to a known strength, against the usual machine. A changed battery may be any. */
function nearness(
  { machines, shares }: Crowd,
  battery: number,
  { share, spread }: KnownStrength,
): Float64Array {
  const wide = Math.hypot(spread, KERNEL_SHARE);
  const near = Float64Array.from(machines, ({ batteries }) => {
    const off = strengthShare(batteries[battery]!.ageing) - share;
    return Math.exp(-((off / wide) ** 2) / 2);
  });
  const usual = near.reduce((sum, each, i) => sum + each * shares[i]!, 0);
  return near.map((each) => (usual > 0 ? ((1 - CHANGED_UNTOLD) * each) / usual + CHANGED_UNTOLD : 1));
}
