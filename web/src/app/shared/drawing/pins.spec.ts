import { seededRandom } from '@voltrek/core/quantities';
import { CAR } from '../../../testing/fixtures';
import { CIRCUIT_HEIGHT, CIRCUIT_WIDTH, MARGIN, overlaps } from './drawing';
import { polygon, rounded } from './outline';
import { pushedApart } from './pins';
import { layoutSide } from './side-view';

describe('pushedApart', () => {
  const span = (a: { x: number; y: number }, b: { x: number; y: number }): number =>
    Math.hypot(a.x - b.x, a.y - b.y);

  it('leaves alone what stands clear already', () => {
    const places = [
      { x: 50, y: 50 },
      { x: 200, y: 90 },
      { x: 300, y: 400 },
    ];
    expect(pushedApart(places)).toEqual(places);
  });

  it('parts two on the same spot, as far to either side', () => {
    const [a, b] = pushedApart([
      { x: 200, y: 200 },
      { x: 200, y: 200 },
    ]);
    expect(span(a!, b!)).toBeGreaterThan(29);
    expect((a!.x + b!.x) / 2).toBeCloseTo(200, 0);
  });

  it('keeps any few pins readable and inside, wherever they were', () => {
    const random = seededRandom(5);
    for (let round = 0; round < 200; round++) {
      const count = 2 + Math.floor(random() * 5);
      const crowd = Array.from({ length: count }, () => ({
        x: 180 + random() * 60,
        y: 240 + random() * 60,
      }));
      const apart = pushedApart(crowd);
      for (const p of apart) {
        expect(p.x >= MARGIN && p.x <= CIRCUIT_WIDTH - MARGIN).toBeTrue();
        expect(p.y >= MARGIN && p.y <= CIRCUIT_HEIGHT - MARGIN).toBeTrue();
      }
      apart.forEach((a, i) => apart.slice(i + 1).forEach((b) => expect(span(a, b)).toBeGreaterThan(22)));
    }
  });

  it('does not change what it was given', () => {
    const given = [
      { x: 10, y: 10 },
      { x: 12, y: 10 },
    ];
    pushedApart(given);
    expect(given).toEqual([
      { x: 10, y: 10 },
      { x: 12, y: 10 },
    ]);
  });
});

describe('outlines', () => {
  const square = [
    { x: 0, y: 0 },
    { x: 100, y: 0 },
    { x: 100, y: 100 },
    { x: 0, y: 100 },
  ];

  it('are closed, and go through every corner when sharp', () => {
    expect(polygon(square)).toBe('M0.0 0.0L100.0 0.0L100.0 100.0L0.0 100.0Z');
  });

  it('round each corner, and never more than half an edge', () => {
    expect(rounded(square).match(/Q/g)!.length).toBe(4);
    expect(rounded(square)).toContain('L0.0 16.0Q0.0 0.0 16.0 0.0');
    const small = square.map(({ x, y }) => ({ x: x / 10, y: y / 10 }));
    expect(rounded(small)).toContain('L0.0 5.0Q0.0 0.0 5.0 0.0');
  });
});

describe('overlaps', () => {
  const size = { width: 10, height: 10 };
  it('counts shared ground, not a shared edge', () => {
    expect(overlaps({ x: 0, y: 0 }, size, { x: 5, y: 5 }, size)).toBeTrue();
    expect(overlaps({ x: 0, y: 0 }, size, { x: 10, y: 0 }, size)).toBeFalse();
    expect(overlaps({ x: 0, y: 0 }, size, { x: 0, y: 11 }, size)).toBeFalse();
  });
});

describe('layoutSide', () => {
  const side = {
    heightMm: 1500,
    outline: [
      { yMm: 0, zMm: 300 },
      { yMm: 4000, zMm: 300 },
      { yMm: 4000, zMm: 1500 },
    ],
    wheels: [{ yMm: 800, zMm: 300, radiusMm: 300 }],
  };

  it('is nothing for a machine that has no side view', () => {
    expect(layoutSide(CAR)).toBeNull();
  });

  it('keeps heights true: a wheel stands on the ground, a metre is a metre both ways', () => {
    const drawn = layoutSide({ ...CAR, side })!;
    const [wheel] = drawn.wheels;
    expect(wheel!.y + wheel!.r).toBeCloseTo(drawn.groundY, 6);
    expect(wheel!.r).toBeCloseTo(0.3 * drawn.metre, 6);
  });

  it('draws only points whose height is known, with the numbers of the plan', () => {
    const points = CAR.points.map((p, i) => (i === 1 ? { ...p, heightMm: 900 } : p));
    expect(layoutSide({ ...CAR, side, points })!.pins.map((p) => p.number)).toEqual([2]);
  });
});
