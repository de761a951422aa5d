import { batteryWord } from '@words/words';
import { type DrawnVehicle, overlaps, type XY } from './drawing';
import { polygon, rounded } from './outline';
import { batteryBox, type Placed } from './placing';
import { VEHICLE as T } from '@words/screens/drawing';

function rectPath(
  { at }: Placed,
  rect: { xMm: number; yMm: number; widthMm: number; lengthMm: number },
): string {
  const { xMm, yMm, widthMm, lengthMm } = rect;
  return polygon([
    at({ xMm, yMm }),
    at({ xMm: xMm + widthMm, yMm }),
    at({ xMm: xMm + widthMm, yMm: yMm + lengthMm }),
    at({ xMm, yMm: yMm + lengthMm }),
  ]);
}

/** Batteries of a vehicle that one of these clamps is on. */
export function takenBatteries(
  { machine }: Placed,
  pointIds: readonly (string | null)[],
): ReadonlySet<number> {
  return new Set(machine.points.filter((p) => pointIds.includes(p.id)).map((p) => p.battery ?? -1));
}

export function drawVehicle(
  placed: Placed,
  name: string,
  takenBatteries: ReadonlySet<number>,
  withZones = false,
): DrawnVehicle {
  const { machine, at, shownMm } = placed;
  const isCut = shownMm < machine.lengthMm;
  const inside = (yMm: number): boolean => yMm <= shownMm;
  const foot = at({ xMm: machine.widthMm / 2, yMm: shownMm });
  const isTurned = at({ xMm: 0, yMm: 1 }).y < at({ xMm: 0, yMm: 0 }).y;
  return {
    name,
    // A turned donor has its name under its nose, beside its volts, where the leads do not run.
    namePlace: isTurned
      ? { x: underNose(placed).x + TAG.width / 2, y: underNose(placed).y + TAG.height + 17 }
      : { x: foot.x, y: foot.y + 15 },
    outline: isCut ? cutOutline(placed) : rounded(machine.outline.map(at)),
    glass: machine.glass.filter((g) => g.every((p) => inside(p.yMm))).map((g) => polygon(g.map(at))),
    wheels: machine.wheels.filter((w) => inside(w.yMm + w.lengthMm)).map((w) => rectPath(placed, w)),
    zones: (withZones ? machine.zones : []).map(({ rect, kind }) => ({ path: rectPath(placed, rect), kind })),
    batteries: machine.batteries.map((_, i) => {
      const box = batteryBox(placed, i);
      return {
        path: polygon([
          { x: box.x, y: box.y },
          { x: box.x + box.width, y: box.y },
          { x: box.x + box.width, y: box.y + box.height },
          { x: box.x, y: box.y + box.height },
        ]),
        label: { x: box.x + box.width / 2, y: box.y + box.height / 2 + 5 },
        // A clamp on the battery takes the place of its name.
        text: takenBatteries.has(i) ? '' : machine.batteries.length > 1 ? batteryWord(i) : T.battery,
      };
    }),
  };
}

/** The outline of the part that is drawn, ending in a torn edge. The outline runs clockwise from the nose. */
function cutOutline({ machine, at, shownMm }: Placed): string {
  const { outline, widthMm } = machine;
  const rightSide = outline.filter((p) => p.yMm < shownMm && p.xMm >= widthMm / 2);
  const leftSide = outline.filter((p) => p.yMm < shownMm && p.xMm < widthMm / 2);
  const rightX = Math.max(...rightSide.map((p) => p.xMm));
  const leftX = Math.min(...leftSide.map((p) => p.xMm));
  const teeth = Array.from({ length: 9 }, (_, i) => ({
    xMm: rightX - ((rightX - leftX) * i) / 8,
    yMm: shownMm - (i % 2 === 0 ? 0 : 110),
  }));
  const first = leftSide.findIndex((p) => p.yMm === Math.min(...leftSide.map((q) => q.yMm)));
  const left = [...leftSide.slice(first + 1), ...leftSide.slice(0, first + 1)];
  const isTooth = (i: number): boolean => i >= rightSide.length && i < rightSide.length + teeth.length;
  return rounded([...rightSide, ...teeth, ...left].map(at), isTooth);
}

export const TAG = { width: 92, height: 28 } as const;

/** Beside the nose of a turned donor. */
export function underNose({ machine, at }: Placed): XY {
  const nose = at({ xMm: machine.widthMm, yMm: 0 });
  return { x: nose.x + 6, y: nose.y + 12 };
}

/** Volts stand inside the body, behind whatever is there: leads and flags stay outside. */
export function tagPlace(placed: Placed): XY {
  const { machine, at, shownMm } = placed;
  const glassMm = Math.max(
    0,
    ...machine.glass
      .flat()
      .filter((p) => p.yMm < shownMm * 0.7)
      .map((p) => p.yMm),
  );
  const places = [0.45, 0.65, 0.25, 0.85].map((share) => {
    const middle = at({ xMm: machine.widthMm / 2, yMm: glassMm + (shownMm - glassMm) * share });
    return { x: middle.x - TAG.width / 2, y: middle.y - TAG.height / 2 };
  });
  const isClear = (place: XY): boolean =>
    machine.batteries.every((_, i) => {
      const box = batteryBox(placed, i);
      return !overlaps(place, TAG, box, box);
    });
  return places.find(isClear) ?? places[0]!;
}
