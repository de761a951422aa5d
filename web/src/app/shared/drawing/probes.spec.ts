import { CIRCUIT_WIDTH, type DrawnPin, type XY } from './drawing';
import { probesAt } from './probes';

const pin = (pointId: string, x: number, y: number): DrawnPin => ({
  number: 1,
  pointId,
  label: pointId,
  point: { x, y },
  at: { x, y },
  isPositive: false,
});
const span = (a: XY, b: XY): number => Math.hypot(a.x - b.x, a.y - b.y);

describe('probesAt', () => {
  const both = { kind: 'probes', red: 'plus', black: 'minus', onCable: null } as const;

  it('leans them apart, whichever is on the left, so that no number is covered', () => {
    for (const [plusX, minusX] of [
      [200, 240],
      [240, 200],
    ] as const) {
      const pins = [pin('plus', plusX, 200), pin('minus', minusX, 200)];
      const [red, black] = probesAt(both, pins);
      expect([red!.part, black!.part]).toEqual(['red', 'black']);
      expect(Math.sign(red!.handle.x - black!.handle.x)).toBe(Math.sign(plusX - minusX));
      expect(span(red!.handle, black!.handle)).toBeGreaterThan(40 + 40);
      for (const { tip, handle } of [red!, black!])
        for (const { at } of pins) {
          expect(span(tip, at)).toBeGreaterThanOrEqual(14.9);
          expect(span(handle, at)).toBeGreaterThan(13 + 13);
        }
    }
  });

  it('stays inside at every edge of the drawing', () => {
    const pins = [pin('plus', 16, 16), pin('minus', CIRCUIT_WIDTH - 16, 16)];
    for (const { handle } of probesAt(both, pins)) {
      expect(handle.x).toBeGreaterThanOrEqual(16);
      expect(handle.x).toBeLessThanOrEqual(CIRCUIT_WIDTH - 16);
      expect(handle.y).toBeGreaterThanOrEqual(16);
    }
  });

  it('stands the probe on the cable off the point that both are at', () => {
    const [red, black] = probesAt({ ...both, black: 'plus', onCable: 'black' }, [pin('plus', 200, 200)]);
    expect(span(black!.tip, { x: 200, y: 200 })).toBeGreaterThan(span(red!.tip, { x: 200, y: 200 }) + 5);
    expect(red!.handle.x).toBeLessThan(black!.handle.x);
  });

  it('draws the jaws of a clamp meter, and nothing where a point is not drawn', () => {
    expect(
      probesAt({ kind: 'round-cable', at: 'minus' }, [pin('minus', 200, 200)]).map((p) => p.part),
    ).toEqual(['jaws']);
    expect(probesAt(both, [pin('plus', 200, 200)])).toEqual([]);
    expect(probesAt(null, [pin('plus', 200, 200)])).toEqual([]);
  });
});
