import type { Machine, MachinePoint, PlanPoint } from '@voltrek/core/machine';
import { CIRCUIT_HEIGHT, CIRCUIT_WIDTH, MARGIN, type XY } from './drawing';

/** Largest scale, drawing units per millimetre, so that a motorcycle is not drawn as large as a truck. */
const MAX_SCALE = 0.15;
/** A vehicle is drawn this far past its last point, and cut off with a torn edge there, mm. */
const PAST_POINTS_MM = 650;
/** Smallest size a battery is drawn at, so that two clamps side by side stay apart, drawing units. */
const BATTERY_LEAST = { width: 74, height: 34 } as const;
/** Gap between the two vehicles: close, not touching. */
const GAP_MM = 600;
export const PACK_SIZE = { width: 74, height: 56 } as const;

export interface Placed {
  readonly machine: Machine;
  readonly at: (point: PlanPoint) => XY;
  readonly scale: number;
  /** How far back it is drawn, mm; its whole length when nothing is cut. */
  readonly shownMm: number;
}

/** Front part that holds every point, or the whole when cutting would gain little. */
function neededMm({ points, batteries, lengthMm }: Machine): number {
  const last = Math.max(...points.map((p) => p.yMm), ...batteries.map((b) => b.rect.yMm + b.rect.lengthMm));
  const cut = last + PAST_POINTS_MM;
  return cut < lengthMm * 0.75 ? cut : lengthMm;
}

export function placeCasualty(machine: Machine, donor: Machine | null, withSource: boolean): Placed {
  const { widthMm, lengthMm } = machine;
  const nameRoom = 18;
  const tall = CIRCUIT_HEIGHT - 2 * MARGIN - nameRoom;
  const wide = CIRCUIT_WIDTH - 2 * MARGIN - (withSource && !donor ? PACK_SIZE.width + 90 : 0);
  const shownMm = donor ? neededMm(machine) : lengthMm;
  const spanMm = donor ? shownMm + GAP_MM + neededMm(donor) : lengthMm;
  const scale = Math.min(tall / spanMm, (donor ? wide * 0.6 : wide) / widthMm, MAX_SCALE);
  const left = withSource ? CIRCUIT_WIDTH - MARGIN - widthMm * scale : (CIRCUIT_WIDTH - widthMm * scale) / 2;
  const slack = Math.max(0, (tall - spanMm * scale) / 2);
  const top = donor ? CIRCUIT_HEIGHT - MARGIN - nameRoom - slack - shownMm * scale : MARGIN + slack;
  return { machine, scale, shownMm, at: ({ xMm, yMm }) => ({ x: left + xMm * scale, y: top + yMm * scale }) };
}

/** The donor stands nose to nose, to the left, turned half round. */
export function placeDonor(machine: Machine, casualty: Placed): Placed {
  const { scale } = casualty;
  const noseY = casualty.at({ xMm: 0, yMm: 0 }).y - GAP_MM * scale;
  const right = MARGIN + machine.widthMm * scale;
  const shownMm = neededMm(machine);
  return {
    machine,
    scale,
    shownMm,
    at: ({ xMm, yMm }) => ({ x: right - xMm * scale, y: noseY - yMm * scale }),
  };
}

export function packPlace(): XY {
  return { x: MARGIN + 8, y: CIRCUIT_HEIGHT * 0.3 };
}

/** The place of a source's own end on its box: the red one above. */
export const poleOfPack = (pack: XY, isRed: boolean): XY => ({
  x: pack.x + PACK_SIZE.width,
  y: pack.y + PACK_SIZE.height * (isRed ? 0.28 : 0.72),
});

interface Box extends XY {
  readonly width: number;
  readonly height: number;
}

/** A battery as drawn: never smaller than two clamps need, and kept inside the body. */
export function batteryBox({ machine, at, scale }: Placed, index: number): Box {
  const { rect } = machine.batteries[index]!;
  const width = Math.max(rect.widthMm * scale, BATTERY_LEAST.width);
  const height = Math.max(rect.lengthMm * scale, BATTERY_LEAST.height);
  const middle = at({ xMm: rect.xMm + rect.widthMm / 2, yMm: rect.yMm + rect.lengthMm / 2 });
  const sides = [at({ xMm: 0, yMm: 0 }).x, at({ xMm: machine.widthMm, yMm: 0 }).x];
  const left = Math.min(...sides) + 5;
  const right = Math.max(...sides) - 5 - width;
  // Batteries of a string are pushed apart by as much as they were enlarged.
  const grown =
    machine.batteries.length > 1 ? (index - 0.5) * Math.max(0, height + 22 - rect.lengthMm * scale) : 0;
  return {
    x: Math.min(Math.max(middle.x - width / 2, left), Math.max(left, right)),
    y: middle.y - height / 2 + grown,
    width,
    height,
  };
}

/** Returns the drawn place of a point: a terminal on its drawn battery, anything else at its true place. */
export function pointPlace(placed: Placed, point: MachinePoint): XY {
  if (point.battery === undefined) return placed.at(point);
  const box = batteryBox(placed, point.battery);
  const onLeft =
    (point.kind === 'battery-positive') === placed.at({ xMm: 0, yMm: 0 }).x < placed.at({ xMm: 1, yMm: 0 }).x;
  return { x: box.x + box.width * (onLeft ? 0.2 : 0.8), y: box.y + box.height / 2 };
}
