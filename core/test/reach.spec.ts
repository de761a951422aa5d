import fc from 'fast-check';
import type { Machine, MachinePoint } from '../src/machine/index.js';
import { gapBetween } from '../src/quantities/index.js';
import {
  bestParking,
  gapMm,
  type LeadPoints,
  parkingAt,
  type Pose,
  poseFor,
  routeLead,
  SLACK_SHARE,
  END_METRES,
  USUAL_GAP_MM,
} from '../src/reach/index.js';
import { CAR } from './fixtures.js';

const pointOn = (machine: Machine, id: string): MachinePoint => machine.points.find((p) => p.id === id)!;
const POINTS: LeadPoints = {
  casualtyRed: pointOn(CAR, 'plus'),
  casualtyBlack: pointOn(CAR, 'ground'),
  donorRed: pointOn(CAR, 'plus'),
  donorBlack: pointOn(CAR, 'minus'),
};
const drawnMetres = (metres: number): number => (metres - 2 * END_METRES) / (1 + SLACK_SHARE);

describe('gapBetween', () => {
  const square = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
    { x: 10, y: 10 },
    { x: 0, y: 10 },
  ];
  it('is the distance of the nearest parts, corner to side and corner to corner', () => {
    const moved = (dx: number, dy: number) => square.map(({ x, y }) => ({ x: x + dx, y: y + dy }));
    expect(gapBetween(square, moved(13, 0))).toBeCloseTo(3, 9);
    expect(gapBetween(square, moved(13, 14))).toBeCloseTo(5, 9);
    expect(gapBetween(square, moved(5, 5))).toBe(0);
    expect(
      gapBetween(square, [
        { x: 4, y: 4 },
        { x: 5, y: 4 },
        { x: 5, y: 5 },
      ]),
    ).toBe(0);
  });
});

describe('parking', () => {
  it('leaves the usual gap in every usual arrangement', () => {
    for (const arrangement of ['nose-to-nose', 'behind', 'left-side', 'right-side', 'nose-in-left'] as const)
      expect(gapMm(CAR, CAR, poseFor(arrangement, CAR, CAR)))
        .withContext(arrangement)
        .toBeCloseTo(USUAL_GAP_MM, 3);
  });

  it('nose to nose needs the straight way between points that face each other', () => {
    // Donor turned half round: its point at x = 150 stands at 1700 - 150 = 1550; it lies 490 mm behind its nose, as the casualty's does.
    const pose = poseFor('nose-to-nose', CAR, CAR);
    const { metres } = routeLead(CAR, POINTS.casualtyRed, CAR, POINTS.donorRed, pose);
    const straight = Math.hypot(1550 - 150, USUAL_GAP_MM + 2 * 490) / 1000;
    expect(drawnMetres(metres)).toBeGreaterThanOrEqual(straight - 1e-9);
    expect(drawnMetres(metres)).toBeLessThan(straight * 1.03);
  });

  it('goes round a body and never through it', () => {
    // Behind: the lead must pass the whole car, 4 m long, on its left side where both points are.
    const pose = poseFor('behind', CAR, CAR);
    const { line, metres } = routeLead(CAR, POINTS.casualtyRed, CAR, POINTS.donorRed, pose);
    const outside = line.slice(1, -1);
    expect(outside.length).toBeGreaterThan(1);
    expect(outside.every(({ x, y }) => x < 0 || x > 1700 || y < 0 || y > 4000)).toBeTrue();
    expect(drawnMetres(metres)).toBeGreaterThan((4000 + USUAL_GAP_MM) / 1000);
    expect(drawnMetres(metres)).toBeLessThan(5.2);
  });

  it('lies clear of hot and moving parts by going the longer way, and says when it cannot', () => {
    const bar = { xMm: -40, yMm: 200, widthMm: 1300, lengthMm: 120 };
    const fan: Machine = { ...CAR, zones: [{ kind: 'moving', label: 'fan', rect: bar }] };
    const pose = poseFor('nose-to-nose', CAR, CAR);
    const clear = routeLead(fan, POINTS.casualtyRed, CAR, POINTS.donorRed, pose);
    const open = routeLead(CAR, POINTS.casualtyRed, CAR, POINTS.donorRed, pose);
    expect(clear.crosses).toBeNull();
    expect(clear.metres).toBeGreaterThan(open.metres);
    const around: Machine = {
      ...CAR,
      zones: [{ kind: 'hot', label: 'all round', rect: { xMm: 60, yMm: 440, widthMm: 200, lengthMm: 100 } }],
    };
    expect(routeLead(around, POINTS.casualtyRed, CAR, POINTS.donorRed, pose).crosses).toBe('hot');
  });

  it('law: farther away never takes less lead, and never less than the straight way', () => {
    fc.assert(
      fc.property(fc.integer({ min: -3000, max: 3000 }), fc.integer({ min: 0, max: 4000 }), (shift, away) => {
        const near = poseFor('nose-to-nose', CAR, CAR);
        const pose: Pose = { ...near, xMm: near.xMm + shift, yMm: near.yMm - away };
        const farther: Pose = { ...pose, yMm: pose.yMm - 500 };
        const here = parkingAt(CAR, CAR, POINTS, pose);
        const there = parkingAt(CAR, CAR, POINTS, farther);
        const ends = here.red.line;
        const first = ends[0]!;
        const last = ends[ends.length - 1]!;
        const straight = Math.hypot(first.x - last.x, first.y - last.y) / 1000;
        return there.metresNeeded > here.metresNeeded && drawnMetres(here.red.metres) >= straight - 1e-9;
      }),
      { numRuns: 40 },
    );
  });

  it('finds an arrangement that takes no more lead than any usual one, without touching', () => {
    const best = bestParking(CAR, CAR, POINTS);
    expect(best.touching).toBeFalse();
    for (const arrangement of ['nose-to-nose', 'behind', 'left-side', 'right-side'] as const)
      expect(best.metresNeeded).toBeLessThanOrEqual(
        parkingAt(CAR, CAR, POINTS, poseFor(arrangement, CAR, CAR)).metresNeeded,
      );
  });

  it('says when the vehicles touch', () => {
    const pose = poseFor('nose-to-nose', CAR, CAR);
    expect(parkingAt(CAR, CAR, POINTS, { ...pose, yMm: pose.yMm + USUAL_GAP_MM }).touching).toBeTrue();
  });
});
