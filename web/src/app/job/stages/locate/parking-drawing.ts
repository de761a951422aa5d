import { type Machine, type PlanPoint, type PlanRect, rectCorners } from '@voltrek/core/machine';
import { corners, type Spot } from '@voltrek/core/quantities';
import { type Parking, placedPoint, type Pose } from '@voltrek/core/reach';
import type { XY } from '../../../shared/drawing/drawing';
import { polygon, rounded } from '../../../shared/drawing/outline';

/** Room around the two vehicles, mm. */
const ROOM_MM = 950;

/** The part of the place that is shown, and its scale. */
export interface ParkingView {
  readonly scale: number;
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly top: number;
}

/** A view that holds both vehicles, within so many pixels. */
export function viewOf(
  casualty: Machine,
  donor: Machine,
  pose: Pose,
  width: number,
  height: number,
): ParkingView {
  const spots = [
    ...corners(0, 0, casualty.widthMm, casualty.lengthMm),
    ...donor.outline.map((p) => placedPoint(donor, pose, p)),
  ];
  const xs = spots.map((s) => s.x);
  const ys = spots.map((s) => s.y);
  const left = Math.min(...xs) - ROOM_MM;
  const top = Math.min(...ys) - ROOM_MM;
  const wide = Math.max(...xs) + ROOM_MM - left;
  const tall = Math.max(...ys) + ROOM_MM - top;
  const scale = Math.min(width / wide, height / tall);
  return {
    scale,
    width,
    height,
    left: left - (width / scale - wide) / 2,
    top: top - (height / scale - tall) / 2,
  };
}

interface DrawnBody {
  readonly outline: string;
  readonly glass: readonly string[];
  readonly wheels: readonly string[];
  readonly batteries: readonly string[];
  readonly zones: readonly { readonly path: string; readonly kind: string }[];
  readonly middle: XY;
}

export interface DrawnParking {
  readonly casualty: DrawnBody;
  readonly donor: DrawnBody;
  readonly red: string;
  readonly black: string;
  /** The place of the knob that turns the donor: behind its tail. */
  readonly knob: XY;
  /** Ends of the leads: red, then black. */
  readonly ends: readonly { readonly at: XY; readonly isRed: boolean }[];
}

/** Behind the donor's tail, where no lead runs, mm. */
const KNOB_MM = 420;

/** The two vehicles and the leads between them, in pixels of the view. */
export function layoutParking(
  casualty: Machine,
  donor: Machine,
  pose: Pose,
  parking: Parking | null,
  view: ParkingView,
): DrawnParking {
  const px = ({ x, y }: Spot): XY => ({ x: (x - view.left) * view.scale, y: (y - view.top) * view.scale });
  const body = (machine: Machine, at: (point: PlanPoint) => Spot): DrawnBody => {
    const rect = (r: PlanRect): string =>
      polygon(rectCorners(r).map(({ x, y }) => px(at({ xMm: x, yMm: y }))));
    return {
      outline: rounded(machine.outline.map((p) => px(at(p)))),
      glass: machine.glass.map((g) => polygon(g.map((p) => px(at(p))))),
      wheels: machine.wheels.map(rect),
      batteries: machine.batteries.map((b) => rect(b.rect)),
      zones: machine.zones.map((z) => ({ path: rect(z.rect), kind: z.kind })),
      middle: px(at({ xMm: machine.widthMm / 2, yMm: machine.lengthMm * 0.8 })),
    };
  };
  const line = (spots: readonly Spot[]): string =>
    spots.map((s, i) => `${i === 0 ? 'M' : 'L'}${px(s).x.toFixed(1)} ${px(s).y.toFixed(1)}`).join('');
  const ends = (spots: readonly Spot[] | undefined, isRed: boolean) =>
    spots ? [spots[0]!, spots[spots.length - 1]!].map((s) => ({ at: px(s), isRed })) : [];
  return {
    casualty: body(casualty, ({ xMm, yMm }) => ({ x: xMm, y: yMm })),
    donor: body(donor, (p) => placedPoint(donor, pose, p)),
    red: parking ? line(parking.red.line) : '',
    black: parking ? line(parking.black.line) : '',
    knob: px(placedPoint(donor, pose, { xMm: donor.widthMm / 2, yMm: donor.lengthMm + KNOB_MM })),
    ends: [...ends(parking?.black.line, false), ...ends(parking?.red.line, true)],
  };
}
