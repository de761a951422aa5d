import { parkingAt, poseFor } from '@voltrek/core/reach';
import { CAR, VAN } from '../../../../testing/fixtures';
import { layoutSide } from '../../../shared/drawing/side-view';
import { layoutParking, viewOf } from './parking-drawing';

const point = (id: string) => CAR.points.find((p) => p.id === id)!;
const POINTS = {
  casualtyRed: point('plus'),
  casualtyBlack: point('ground'),
  donorRed: point('plus'),
  donorBlack: point('minus'),
};

describe('layoutParking', () => {
  it('shows both vehicles to scale, whole and inside the view', () => {
    const pose = poseFor('nose-in-left', CAR, VAN);
    const view = viewOf(CAR, VAN, pose, 300, 400);
    const parking = parkingAt(CAR, VAN, POINTS, pose);
    const drawn = layoutParking(CAR, VAN, pose, parking, view);
    const spots = [
      ...`${drawn.casualty.outline}${drawn.donor.outline}`.matchAll(/(-?[\d.]+)[ ,](-?[\d.]+)/g),
    ];
    expect(spots.length).toBeGreaterThan(8);
    for (const [, x, y] of spots) {
      expect(Number(x)).toBeGreaterThan(0);
      expect(Number(x)).toBeLessThan(300);
      expect(Number(y)).toBeGreaterThan(0);
      expect(Number(y)).toBeLessThan(400);
    }
    // The red lead begins on the donor and ends on the casualty's own point.
    const [from, to] = drawn.ends.filter((e) => e.isRed);
    expect((to!.at.x - from!.at.x) / view.scale).toBeCloseTo(
      parking.red.line.at(-1)!.x - parking.red.line[0]!.x,
      3,
    );
  });
});

describe('layoutSide', () => {
  it('draws heights that are known, and nothing for those that are not', () => {
    expect(layoutSide(CAR)).toBeNull();
    const side = {
      heightMm: 1500,
      outline: [
        { yMm: 0, zMm: 200 },
        { yMm: 4000, zMm: 200 },
        { yMm: 4000, zMm: 1500 },
        { yMm: 0, zMm: 1500 },
      ],
      wheels: [{ yMm: 800, zMm: 300, radiusMm: 300 }],
    };
    const points = CAR.points.map((p, i) => (i === 2 ? { ...p, heightMm: 1000 } : p));
    const drawn = layoutSide({ ...CAR, side, points })!;
    expect(drawn.pins.map((p) => p.pointId)).toEqual(['ground']);
    expect((drawn.groundY - drawn.pins[0]!.point.y) / drawn.metre).toBeCloseTo(1, 6);
    expect(drawn.groundY - drawn.wheels[0]!.y).toBeCloseTo(drawn.wheels[0]!.r, 6);
  });
});
