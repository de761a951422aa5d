import { drawSound } from '@voltrek/core/belief';
import { seededRandom } from '@voltrek/core/quantities';
import { leadGrid, traceOf, waitCurve } from '@voltrek/core/plan';
import { PLAN_CASE } from '../../../../testing/fixtures';
import type { ChartColours } from '../../../shared/ui/colours';
import { crankChart, leadChart, waitChart } from './plan-charts';

const COLOURS: ChartColours = {
  ink: '#111111',
  dim: '#555555',
  line: '#cccccc',
  sheet: '#ffffff',
  body: '#dddddd',
  lamp: '#ffaa00',
  ok: '#008800',
  bad: '#880000',
  positive: '#cc0000',
};

interface Drawn {
  readonly series: readonly {
    readonly name?: string;
    readonly data: readonly { readonly value: readonly number[]; readonly itemStyle?: object }[];
    readonly markLine?: { readonly data: readonly object[] };
  }[];
}

describe('the charts of Plan', () => {
  it('draw the crank with its two volts, its amps and its speed against what is needed', () => {
    const trace = traceOf(PLAN_CASE, 2);
    const { series } = crankChart(trace, COLOURS) as unknown as Drawn;
    expect(series.map((s) => s.name)).toEqual(['battery', 'starter', 'starter', 'help', 'speed']);
    expect(series[4]!.markLine!.data).toEqual([{ yAxis: trace.neededRpm }]);
    for (const { data } of series) {
      expect(data.length).toBeGreaterThan(100);
      expect(data.length).toBeLessThan(400);
    }
  });

  it('mark the knee of the wait', () => {
    const curve = waitCurve(PLAN_CASE, 4, drawSound(60, seededRandom(1)))!;
    const { series } = waitChart(curve, COLOURS) as unknown as Drawn;
    expect(series[0]!.data.length).toBe(5);
    expect(series[0]!.markLine!.data).toEqual([{ xAxis: curve.kneeMinutes }]);
  });

  it('frame the set in use among all sets of the grid', () => {
    const cells = leadGrid(PLAN_CASE, drawSound(20, seededRandom(1)))!;
    const { series } = leadChart(cells, PLAN_CASE.rescue.leads, 'rpm', COLOURS) as unknown as Drawn;
    const drawn = series.flatMap((s) => s.data);
    expect(drawn.length).toBe(50);
    expect(drawn.filter((d) => d.itemStyle).length).toBe(1);
    const framed = drawn.find((d) => d.itemStyle)!;
    const cell = cells.find((c) => c.sectionMm2 === 25 && c.lengthM === 3.5 && c.conductor === 'copper')!;
    expect(framed.value[2]).toBe(cell.rpm);
  });
});
