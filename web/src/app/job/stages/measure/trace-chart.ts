import type { EChartsCoreOption } from 'echarts/core';
import { fixed } from '@words/numbers';
import type { ChartColours } from '../../../shared/ui/colours';
import { axis, line, shaded } from '../../../shared/ui/chart-parts';
import { volts } from '@words/figures';
import type { TraceRead } from '../../../workers/trace-read';
import { TRACE_CHART as T } from '@words/screens/job-stages-measure';

/** Volts against time, the crank shaded, rest and lowest marked by name. */
export function traceChart({ drawn, findings }: TraceRead, c: ChartColours): EChartsCoreOption {
  const { crank, restVolts } = findings;
  const values = drawn.map(([, v]) => v);
  const mark = (name: string, yAxis: number) => ({
    name,
    yAxis,
    label: { formatter: `{b} ${fixed(yAxis, 2)}`, position: 'insideEndTop', color: c.ink, fontSize: 14 },
    lineStyle: { color: c.ink, type: 'dashed', width: 1.2 },
  });
  return {
    grid: { left: 46, right: 18, top: 22, bottom: 30 },
    xAxis: axis(c, 's', { max: Math.ceil(findings.durationSeconds) }),
    yAxis: axis(c, 'V', {
      min: Math.floor(Math.min(...values)),
      max: Math.ceil(Math.max(...values)),
    }),
    series: [
      line(
        'volts',
        drawn.map(([x, y]) => [x, y]),
        c.ink,
        {
          endLabel: { show: false },
          lineStyle: { color: c.ink, width: 1.6 },
          markArea: crank && shaded(c, T.crank, crank.fromSeconds, crank.toSeconds),
          markLine: {
            symbol: 'none',
            data: [
              ...(restVolts === null ? [] : [mark('rest', restVolts)]),
              ...(crank ? [mark('lowest', crank.minimumVolts)] : []),
            ],
          },
        },
      ),
    ],
  };
}

export function traceSummary({ findings, rows }: TraceRead): string {
  const { crank, restVolts } = findings;
  const rest = restVolts === null ? '' : T.rest({ restVolts: volts(restVolts) });
  const cranked = crank ? T.crankDownTo({ minimumVolts: volts(crank.minimumVolts) }) : T.noCrank;
  return T.summary({ rows, durationSeconds: fixed(findings.durationSeconds, 1), rest, cranked });
}
