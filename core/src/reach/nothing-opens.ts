import { type Machine, startsByWaking } from '../machine/index.js';
import { type KitItem, type LatchPoint, type LatchSourceKit, usualLatchPoint } from '../sources/index.js';

export const LATCH_PLACES = ['key-blade', 'known-wires', 'tow-eye-cover', 'grille', 'arch-liner'] as const;
/** The places at which a machine with dead electric latches may be opened, the quickest and least harmful first. */
export type LatchPlace = (typeof LATCH_PLACES)[number];

/** A latch coil is for a moment: held longer it warms, and the source empties, s. */
export const LATCH_PULL_SECONDS = 3;

const BY_BLADE = ['blade-out', 'blade-in-lock', 'pull-handle'] as const;
/** The last contact is red's, a touch and no clamp: what it carries is under an ampere, and it comes off as soon as the latch has let go. */
const BY_WIRES = [
  'cover-off',
  'wires-out',
  'meter-wires',
  'black-on',
  'red-touches',
  'bonnet-up',
  'red-off-first',
  'wires-back',
] as const;
/** One thing done where nothing opens. */
export type LatchStep = (typeof BY_BLADE | typeof BY_WIRES)[number];

export const latchSteps = (place: LatchPlace): readonly LatchStep[] =>
  place === 'key-blade' ? BY_BLADE : BY_WIRES;

/** How a machine that does not open is opened. */
export interface NothingOpens {
  /** Places left to try, in order: the wires that its entry knows stand for every other pair. */
  readonly places: readonly LatchPlace[];
  /** Returns the item of the van that may feed the wires, with its effect there; null where the van has none. */
  readonly source: { readonly item: LatchSourceKit; readonly does: LatchPoint } | null;
  /** It is open. */
  readonly opened: boolean;
}

/** Whether this machine knows wires of its own that release a latch. */
export const knowsLatchWires = ({ points }: Pick<Machine, 'points'>): boolean =>
  points.some(({ kind }) => kind === 'latch-wire-positive');

/**
 * Returns the next place to look at.
 *
 * @param tried what was tried on this job, in order
 * @returns null for a machine that opens without power
 */
export function nothingOpens(
  machine: Machine,
  kit: readonly KitItem[],
  tried: readonly { readonly place: LatchPlace; readonly opened: boolean }[],
): NothingOpens | null {
  if (!startsByWaking(machine) && !knowsLatchWires(machine)) return null;
  const may: readonly LatchPlace[] = knowsLatchWires(machine)
    ? ['key-blade', 'known-wires']
    : LATCH_PLACES.filter((place) => place !== 'known-wires');
  const items = kit.flatMap((item) =>
    item.kind === 'latch-source' ? [{ item, does: usualLatchPoint(item.volts) }] : [],
  );
  return {
    places: may.filter((place) => !tried.some((t) => t.place === place)),
    source: items.find(({ does }) => does.releases) ?? items[0] ?? null,
    opened: tried.some(({ opened }) => opened),
  };
}
