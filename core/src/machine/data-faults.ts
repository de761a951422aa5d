import { isLeadAcid } from '../battery/index.js';
import { isPositiveEarth } from './earth.js';
import { isPositivePoint, type Machine, type PointKind } from './machine.js';

export const DATA_FAULTS = [
  'unknown-battery',
  'same-id',
  'latch-wire-alone',
  'string-does-not-match-volts',
  'engine-does-not-match-volts',
  'engine-of-an-electric',
  'string-mixed',
  'rating-unlikely',
  'no-red-point',
  'no-black-point',
  'positive-earth-unknown',
] as const;
export type DataFaultCode = (typeof DATA_FAULTS)[number];

/** Something in what is said of a machine that contradicts the rest of it. */
export interface DataFault {
  readonly code: DataFaultCode;
  /** Path of the fault: `points[2]`, `engine`. */
  readonly path: string;
}

/** The parts of a machine that its electricity rests on. */
export type MachineData = Pick<
  Machine,
  'machineClass' | 'systemVolts' | 'batteries' | 'points' | 'engine' | 'earth'
>;

/**
 * Cold-cranking amps for each Ah that any battery of its kind has, by whatever standard: outside of these a figure was mistyped, or stands
 * in the other's place.
 */
export const CCA_PER_AH = { leadAcid: [2.5, 25], lithium: [4, 120], bank: [150, 15_000] } as const;
/** Two batteries of a string are one size; apart by more than this, as a share, they are not. */
export const STRING_SIZE_TOLERANCE = 0.1;

/** Points that no machine with its plus on the body has. */
const NEWER_POINTS: readonly PointKind[] = ['red-post', 'latch-wire-positive', 'latch-wire-negative'];

/** Everything in a machine's data that contradicts itself; empty for a sound entry. */
export function dataFaults({
  machineClass,
  systemVolts,
  batteries,
  points,
  engine,
  earth,
}: MachineData): DataFault[] {
  const faults: DataFault[] = [];
  const fault = (code: DataFaultCode, path: string): number => faults.push({ code, path });
  if (batteries.length * 12 !== systemVolts) fault('string-does-not-match-volts', 'batteries');
  if (engine && engine.systemVolts !== systemVolts)
    fault('engine-does-not-match-volts', 'engine.systemVolts');
  if (engine && machineClass === 'ev') fault('engine-of-an-electric', 'engine');
  batteries.forEach(({ rating: { chemistry, capacityAh, ccaAmps } }, i) => {
    const [least, most] =
      CCA_PER_AH[chemistry === 'capacitor' ? 'bank' : isLeadAcid(chemistry) ? 'leadAcid' : 'lithium'];
    const perAh = ccaAmps / capacityAh;
    if (perAh < least || perAh > most) fault('rating-unlikely', `batteries[${i}].rating.ccaAmps`);
    const first = batteries[0]!.rating;
    const isOther =
      chemistry !== first.chemistry ||
      Math.abs(capacityAh - first.capacityAh) > STRING_SIZE_TOLERANCE * first.capacityAh;
    if (isOther) fault('string-mixed', `batteries[${i}].rating`);
  });
  const ids = points.map((p) => p.id);
  points.forEach(({ id, battery }, i) => {
    if (ids.indexOf(id) < i) fault('same-id', `points[${i}]`);
    if (battery !== undefined && !batteries[battery]) fault('unknown-battery', `points[${i}]`);
  });
  const wires = (['latch-wire-positive', 'latch-wire-negative'] as const).filter((kind) =>
    points.some((p) => p.kind === kind),
  );
  if (wires.length === 1) fault('latch-wire-alone', 'points');
  if (!points.some(({ kind }) => isPositivePoint(kind) && kind !== 'latch-wire-positive'))
    fault('no-red-point', 'points');
  if (!points.some((p) => p.kind === 'ground-point' || p.kind === 'battery-negative'))
    fault('no-black-point', 'points');
  // One flooded battery, its own posts, an engine to crank: what such machines were built with. Whatever else is said of one is a mistake.
  const isOfItsTime =
    batteries.length === 1 && engine !== null && !points.some((p) => NEWER_POINTS.includes(p.kind));
  if (isPositiveEarth({ earth }) && !isOfItsTime) fault('positive-earth-unknown', 'earth');
  return faults;
}
