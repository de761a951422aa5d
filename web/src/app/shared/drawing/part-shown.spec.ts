import {
  CIRCUIT_HEIGHT as HEIGHT,
  CIRCUIT_WIDTH as WIDTH,
  type DrawnClamp,
  type DrawnPin,
  type XY,
} from './drawing';
import { partShown } from './part-shown';

const PHONE = { width: 390, height: 287 };
/** 12 px for 14 units. */
const SCALE = 12 / 14;
/** The part under the keys at the top. */
const KEYS = 56 / SCALE;

const drawing = (at: XY | null, clamps: readonly XY[] = [], pins: readonly XY[] = []) => ({
  ...{ width: WIDTH, height: HEIGHT },
  target: at && { at, flag: at, pole: '', isRemoval: false },
  clamps: clamps.map(
    (place): DrawnClamp => ({ at: place, clamp: 'redSource', isRed: true, isFree: true, label: '' }),
  ),
  pins: pins.map(
    (place, i): DrawnPin => ({
      ...{ number: i + 1, pointId: `p${i}`, label: '', isPositive: false },
      ...{ point: place, at: place },
    }),
  ),
});

describe('the part of a drawing that a small room shows', () => {
  it('is all of it where its words can be read', () => {
    const whole = { x: 0, y: 0, width: WIDTH, height: HEIGHT };
    expect(partShown(drawing({ x: 10, y: 10 }), { width: 450, height: 640 })).toEqual(whole);
    expect(partShown(drawing({ x: 10, y: 10 }), { width: 400, height: 490 })).toEqual(whole);
    expect(partShown(drawing(null), { width: 0, height: 0 }))
      .withContext('not on the screen yet')
      .toEqual(whole);
  });

  it('shows words of 12 px, and where hands go, wherever that is', () => {
    for (const room of [PHONE, { width: 300, height: 200 }, { width: 600, height: 240 }])
      for (const x of [0, 60, 220, WIDTH])
        for (const y of [0, 100, 300, HEIGHT]) {
          const part = partShown(drawing({ x, y }), room);
          const named = `${x}, ${y} in ${room.width} x ${room.height}`;
          expect(room.width / part.width)
            .withContext(named)
            .toBeCloseTo(SCALE, 6);
          expect(room.height / part.height)
            .withContext(named)
            .toBeCloseTo(SCALE, 6);
          expect(x).withContext(named).toBeGreaterThanOrEqual(part.x);
          expect(x)
            .withContext(named)
            .toBeLessThanOrEqual(part.x + part.width);
          // Not under the keys that lie over its upper edge.
          expect(y)
            .withContext(named)
            .toBeGreaterThanOrEqual(part.y + KEYS - 1e-9);
          expect(y)
            .withContext(named)
            .toBeLessThanOrEqual(part.y + part.height + 1e-9);
        }
  });

  it('shows nothing beside the drawing that it need not', () => {
    const { x, y, width, height } = partShown(drawing({ x: 220, y: HEIGHT }), PHONE);
    expect(y + height).toBeCloseTo(HEIGHT, 6);
    expect(x + width / 2)
      .withContext('wider than the drawing: that is in its middle')
      .toBeCloseTo(WIDTH / 2, 6);
  });

  it('is around the clamps while nothing is asked of hands', () => {
    const clamps = [
      { x: 100, y: 280 },
      { x: 200, y: 320 },
    ];
    const { y, height } = partShown(drawing(null, clamps), PHONE);
    expect(y + KEYS + (height - KEYS) / 2).toBeCloseTo(300, 6);
  });

  it('is around the point that is looked for, and around all of them while none is', () => {
    const pins = [
      { x: 100, y: 200 },
      { x: 200, y: 340 },
    ];
    const middle = (chosen: string | null): number => {
      const { y, height } = partShown(drawing(null, [{ x: 0, y: 0 }], pins), PHONE, chosen);
      return y + KEYS + (height - KEYS) / 2;
    };
    expect(middle(null)).toBeCloseTo(270, 6);
    expect(middle('p0')).toBeCloseTo(200, 6);
    expect(middle('p1')).toBeCloseTo(340, 6);
  });
});
