import { chargeHours } from '@voltrek/core/charging';
import { BENCH_TOOLS, type BenchToolId } from '@words/bench-words';
import { curveOf } from './curve';
import { answersOf, givenOf, readFields } from './read-fields';
import type { Pair } from './tool';
import { TOOLS } from './tools';

const fieldsOf = (id: BenchToolId, typed: Record<string, string> = {}) => readFields(TOOLS[id], typed);
const of = (id: BenchToolId, typed: Record<string, string> = {}) =>
  curveOf(TOOLS[id], givenOf(fieldsOf(id, typed)))!;
/** A curve at `x`, between its points. */
function along(points: readonly Pair[], x: number): number {
  const i = points.findIndex(([at]) => at >= x);
  const [b, a] = [points[i]!, points[i - 1] ?? points[i]!];
  return b[0] === a[0] ? b[1] : a[1] + ((b[1] - a[1]) * (x - a[0])) / (b[0] - a[0]);
}

describe('the curves of the bench', () => {
  it('come with every tool, pass through the values that stand, and are all figures', () => {
    for (const id of BENCH_TOOLS) {
      const { lines, now, xEnds } = of(id);
      expect(now).withContext(id).not.toBeNull();
      expect(xEnds[0]).withContext(id).toBeLessThan(xEnds[1]);
      for (const { points } of lines) {
        expect(points.length).withContext(id).toBeGreaterThan(2);
        for (const [x, y] of points)
          expect(Number.isFinite(x) && Number.isFinite(y))
            .withContext(id)
            .toBeTrue();
      }
      const ys = lines[0]!.points.map(([, y]) => y);
      const span = Math.max(...ys) - Math.min(...ys);
      expect(Math.abs(along(lines[0]!.points, now![0]) - now![1]))
        .withContext(id)
        .toBeLessThan(0.05 * span);
    }
  });

  it('say what the tool itself answers there', () => {
    const { lines } = of('leads', { sectionMm2: '25' });
    const { results } = answersOf(TOOLS.leads, fieldsOf('leads', { sectionMm2: '50' }));
    const rpm = results.find((r) => r.key === 'rpm')!.value!;
    expect(along(lines[0]!.points, 50)).toBeCloseTo(rpm, 0);
  });

  it('charge as the core charges: the hours to a target lie where the line crosses it', () => {
    const { now } = of('charge', { targetPercent: '80', percent: '10' });
    const rating = { chemistry: 'flooded', capacityAh: 70, ccaAmps: 630, ccaStandard: 'EN' } as const;
    expect(now![0]).toBeCloseTo(chargeHours(rating, 0.1, 0.8, 7, 10)!, 0);
  });

  it('turn a finger on them into what is typed, within the range of the field', () => {
    expect(of('leads').typedAt(33.4)).toEqual({ field: 'sectionMm2', text: '33.4' });
    expect(of('drain').typedAt(120.4)).toEqual({ field: 'drainMilliamps', text: '120' });
    const { typedAt, lines } = of('revive');
    const [minutes, volts] = lines[0]!.points[40]!;
    expect(Number(typedAt(minutes)!.text)).toBeCloseTo(volts, 1);
    // Past what the charger's sense voltage may be, its most stands.
    expect(Number(typedAt(1e9)!.text)).toBe(12);
  });

  it('follow the method that is chosen, and draw nothing of what has no answer', () => {
    expect(of('soc', { method: 'hydrometer' }).typedAt(1.2)!.field).toBe('gravity');
    expect(curveOf(TOOLS.freeze, givenOf(fieldsOf('freeze', { chemistry: 'lfp' })))).toBeNull();
    expect(of('charge', { targetPercent: '10', percent: '40' }).now).not.toBeNull();
  });
});
