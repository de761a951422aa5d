import { SPARE_POSTS } from '@voltrek/core/hookup';
import { isPositivePoint, numberOf } from '@voltrek/core/machine';
import { type DrawnPin, CIRCUIT_HEIGHT, CIRCUIT_WIDTH, MARGIN, type Size, type XY } from './drawing';
import { type Placed, pointPlace, poleOfPack } from './placing';

/** Pins nearer than this are pushed apart, drawing units. */
const PIN_APART = 30;

const CIRCUIT: Size = { width: CIRCUIT_WIDTH, height: CIRCUIT_HEIGHT };

/** A number for every point of the machine, or for some of them: each keeps the number that it has among all. */
export function pinsOf(placed: Placed, only?: readonly string[]): DrawnPin[] {
  const { machine } = placed;
  const shown = machine.points.filter(({ id }) => only?.includes(id) ?? true);
  const points = shown.map((point) => pointPlace(placed, point));
  const apart = pushedApart(points);
  return shown.map((point, i) => ({
    number: numberOf(machine, point.id),
    pointId: point.id,
    label: point.label,
    point: points[i]!,
    at: apart[i]!,
    isPositive: isPositivePoint(point.kind),
  }));
}

/** Red and black beside each other on the source that stands where a donor would: the poles of spare batteries. */
export function polePins(pack: XY): DrawnPin[] {
  return ([SPARE_POSTS.plus, SPARE_POSTS.minus] as const).map((pointId, i) => {
    const isPositive = i === 0;
    const point = poleOfPack(pack, isPositive);
    const at = { x: point.x + PIN_APART, y: point.y + (isPositive ? -1 : 1) * (PIN_APART / 2) };
    return { ...{ number: i + 1, pointId, label: isPositive ? '+' : '-' }, point, at, isPositive };
  });
}

/** The same places, moved as little as it takes to stand clear of one another and inside the drawing. */
export function pushedApart(points: readonly XY[], within: Size = CIRCUIT): XY[] {
  const places = points.map((p) => ({ ...p }));
  for (let round = 0; round < 30; round++) {
    for (let i = 0; i < places.length; i++) {
      for (let j = i + 1; j < places.length; j++) {
        const a = places[i]!;
        const b = places[j]!;
        const dx = b.x - a.x || 0.01;
        const dy = b.y - a.y;
        const span = Math.hypot(dx, dy);
        if (span >= PIN_APART) continue;
        const push = (PIN_APART - span) / 2 / span;
        a.x -= dx * push;
        a.y -= dy * push;
        b.x += dx * push;
        b.y += dy * push;
      }
    }
    for (const p of places) {
      p.x = Math.min(Math.max(p.x, MARGIN), within.width - MARGIN);
      p.y = Math.min(Math.max(p.y, MARGIN), within.height - MARGIN);
    }
  }
  return places;
}
