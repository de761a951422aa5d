import type { BatteryRating } from '../battery/index.js';
import type { Engine } from '../engine/index.js';

export const MACHINE_CLASSES = [
  'car',
  'van',
  'truck',
  'plant',
  'motorcycle',
  'ride-on',
  'genset',
  'boat',
  'hybrid',
  'ev',
] as const;
export type MachineClass = (typeof MACHINE_CLASSES)[number];

export const GEARBOXES = ['manual', 'automatic', 'none'] as const;
export type Gearbox = (typeof GEARBOXES)[number];

/** Millimetres in plan: x to the right seen from above, y from the front rearwards, origin at the front left corner. */
export interface PlanPoint {
  readonly xMm: number;
  readonly yMm: number;
}

export interface PlanRect extends PlanPoint {
  readonly widthMm: number;
  readonly lengthMm: number;
}

/** Millimetres in side view: y from the front rearwards, z up from the ground. */
export interface SidePoint {
  readonly yMm: number;
  readonly zMm: number;
}

/** The machine seen from its left, front to the left. */
export interface SideView {
  readonly heightMm: number;
  /** A closed polygon, like the plan's. */
  readonly outline: readonly SidePoint[];
  readonly wheels: readonly (SidePoint & { readonly radiusMm: number })[];
}

export const TERMINAL_LAYOUTS = ['positive-left', 'positive-right'] as const;
/** The post that is positive, seen from the long side that the posts are nearer to. A battery of the other layout strains its cables. */
export type TerminalLayout = (typeof TERMINAL_LAYOUTS)[number];

/** A 12 V battery where it sits. In a string, battery 0 is the one on the chassis side. */
export interface MachineBattery {
  readonly rating: BatteryRating;
  readonly layout: TerminalLayout;
  readonly rect: PlanRect;
  /** Its top above the ground, mm. */
  readonly topMm: number;
  /** Its place, in the trade's words: "boot, right side". */
  readonly place: string;
  /** In a boot, cabin or box where gas gathers. */
  readonly closedIn: boolean;
  /** Its gas is led outside through a hose. */
  readonly ventHose: boolean;
}

export const ZONE_KINDS = ['hot', 'moving'] as const;
/** Exhausts and turbochargers; fans, belts and whatever else turns. */
export type ZoneKind = (typeof ZONE_KINDS)[number];

/** A part of the machine that no lead may cross. */
export interface Zone {
  readonly kind: ZoneKind;
  readonly label: string;
  readonly rect: PlanRect;
}

export const POINT_KINDS = [
  'battery-positive',
  'battery-negative',
  'red-post',
  'starter-stud',
  'ground-point',
  'release',
  'latch-wire-positive',
  'latch-wire-negative',
] as const;
export type PointKind = (typeof POINT_KINDS)[number];

/**
 * Points that a red clamp or a red wire belongs on.
 *
 * @example isPositivePoint('red-post') // => true
 */
export function isPositivePoint(kind: PointKind): boolean {
  return (
    kind === 'red-post' ||
    kind === 'battery-positive' ||
    kind === 'starter-stud' ||
    kind === 'latch-wire-positive'
  );
}

/** Something to find on the machine, and the steps that reach it. */
export interface MachinePoint extends PlanPoint {
  readonly id: string;
  readonly kind: PointKind;
  readonly label: string;
  readonly steps: readonly string[];
  /** Above the ground, mm. */
  readonly heightMm?: number;
  /** Its cover: "red hood", "boot floor". */
  readonly cover?: string;
  readonly tools?: readonly string[];
  /** For a battery's own terminals: which battery. */
  readonly battery?: number;
}

/** One machine of the atlas. */
export interface Machine {
  readonly id: string;
  readonly maker: string;
  readonly model: string;
  readonly machineClass: MachineClass;
  readonly gearbox: Gearbox;
  readonly systemVolts: 12 | 24;
  /** The post that its body is joined to, where that is not the usual minus: old tractors and cars. */
  readonly earth?: 'positive' | undefined;
  readonly lengthMm: number;
  readonly widthMm: number;
  /** Body outline in plan, a closed polygon (the last point joins the first). */
  readonly outline: readonly PlanPoint[];
  readonly glass: readonly (readonly PlanPoint[])[];
  readonly wheels: readonly PlanRect[];
  /** Null where height does not matter, or is not known. */
  readonly side: SideView | null;
  readonly zones: readonly Zone[];
  readonly batteries: readonly MachineBattery[];
  readonly points: readonly MachinePoint[];
  /** Null for a machine that wakes and does not crank (EV, full hybrid). */
  readonly engine: Engine | null;
  readonly smartAlternator: boolean;
  readonly resets: readonly string[];
  readonly cautions: readonly string[];
  /** Acts that must never be done to this machine. */
  readonly never: readonly string[];
}

/**
 * EVs and hybrids wake on a steady 12 V; everything else cranks.
 *
 * @example startsByWaking({ engine: null }) // => true
 */
export function startsByWaking(machine: Machine): boolean {
  return machine.engine === null;
}

/** Metres from a point to the nearest edge of the nearest battery, in plan; 0 when it is on the battery. */
export function metresToNearestBattery(machine: Machine, point: PlanPoint): number {
  const distances = machine.batteries.map(({ rect }) => {
    const dx = Math.max(rect.xMm - point.xMm, 0, point.xMm - (rect.xMm + rect.widthMm));
    const dy = Math.max(rect.yMm - point.yMm, 0, point.yMm - (rect.yMm + rect.lengthMm));
    return Math.hypot(dx, dy) / 1000;
  });
  return Math.min(...distances);
}

/**
 * The point with this id.
 *
 * @throws RangeError when the machine has none
 * @example pointOf({ points: [{ id: 'a', kind: 'red-post' }] }, 'a').kind // => 'red-post'
 */
export function pointOf(machine: Machine, pointId: string): MachinePoint {
  const found = machine.points.find((p) => p.id === pointId);
  if (!found) throw new RangeError(`${machine.id} has no point ${pointId}`);
  return found;
}

/** The first point of this kind, on this battery where one is named; undefined where the machine has none. */
export function pointOn(machine: Machine, kind: PointKind, battery?: number): MachinePoint | undefined {
  return machine.points.find(
    (p) => p.kind === kind && (battery === undefined || (p.battery ?? 0) === battery),
  );
}

/**
 * The number of a point on every drawing of its machine, from 1; 0 where the machine has no such point.
 *
 * @example numberOf({ points: [{ id: 'a' }, { id: 'b' }] }, 'b') // => 2
 */
export function numberOf({ points }: Pick<Machine, 'points'>, pointId: string): number {
  return points.findIndex((p) => p.id === pointId) + 1;
}

/**
 * Whether a corrected entry is another machine to the hands on it: another voltage, post on the body, engine or battery, or a point that is
 * gone, of another kind, or elsewhere. Points that were added and words that were put better are not.
 *
 * @example
 * isOtherToHands(before, { ...before, points: before.points.slice(1) }); // true
 */
export function isOtherToHands(before: Machine, after: Machine): boolean {
  const facts = ({ systemVolts, earth, engine, batteries }: Machine): string =>
    JSON.stringify([systemVolts, earth ?? null, engine, batteries.map(({ rating, rect }) => [rating, rect])]);
  const place = ({ kind, xMm, yMm, battery = 0 }: MachinePoint): string =>
    JSON.stringify([kind, xMm, yMm, battery]);
  const stillThere = (point: MachinePoint): boolean => {
    const now = after.points.find(({ id }) => id === point.id);
    return now !== undefined && place(now) === place(point);
  };
  return facts(before) !== facts(after) || !before.points.every(stillThere);
}

/** Kinds of point that a jump clamp may go on. A latch wire carries under an amp and a release is a lever. */
const CLAMP_KINDS: readonly PointKind[] = [
  'red-post',
  'battery-positive',
  'battery-negative',
  'starter-stud',
  'ground-point',
];

/**
 * True for a point that a jump clamp may go on.
 *
 * @example takesClamp('fuse-box') // => false
 */
export function takesClamp(kind: PointKind): boolean {
  return CLAMP_KINDS.includes(kind);
}
