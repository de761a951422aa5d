import type { CircuitDrawing, Size, XY } from './drawing';

/** The smallest size that words of a drawing are read at, px. */
const READ_PX = 12;
/** The smallest words of a drawing, in its own units. */
const WORDS_SIZE = 14;
/** Keys lie over the upper edge of a small drawing: what is at its top is moved out from under them, px. */
const KEYS_PX = 56;

/** The part of a drawing that is looked at, in its own units. */
export type Part = XY & Size;

/** The facts that a part is chosen by. */
export type Shown = Pick<CircuitDrawing, 'width' | 'height' | 'target' | 'clamps' | 'pins'>;

/**
 * All of a drawing where its words can be read then; in a smaller room the part around where hands go, as large as it must be for that.
 *
 * @param room that it is shown in, px
 * @param chosenPin the point that is looked for
 */
export function partShown(drawing: Shown, room: Size, chosenPin: string | null = null): Part {
  const { width, height } = drawing;
  const scale = READ_PX / WORDS_SIZE;
  const isReadable = Math.min(room.width / width, room.height / height) >= scale;
  if (isReadable || room.width === 0 || room.height === 0) return { x: 0, y: 0, width, height };
  const part = { width: room.width / scale, height: room.height / scale };
  const at = lookedAt(drawing, chosenPin) ?? { x: width / 2, y: height / 2 };
  const keys = KEYS_PX / scale;
  return {
    x: within(at.x, part.width, width),
    y: within(at.y, part.height - keys, height) - keys,
    ...part,
  };
}

function lookedAt({ target, pins, clamps }: Shown, chosenPin: string | null): XY | null {
  if (target) return target.at;
  const chosen = pins.find((pin) => pin.pointId === chosenPin);
  if (chosen) return chosen.at;
  return middleOf((pins.length > 0 ? pins : clamps).map(({ at }) => at));
}

function middleOf(places: readonly XY[]): XY | null {
  if (places.length === 0) return null;
  const mean = (of: (place: XY) => number): number =>
    places.reduce((sum, place) => sum + of(place), 0) / places.length;
  return { x: mean(({ x }) => x), y: mean(({ y }) => y) };
}

/**
 * Returns the beginning of a stretch with `at` in its middle, or as near as the whole allows; one that is longer has the whole in its
 * middle.
 */
function within(at: number, length: number, whole: number): number {
  if (length >= whole) return (whole - length) / 2;
  return Math.min(Math.max(at - length / 2, 0), whole - length);
}
