import type { Exam } from '@voltrek/contracts';
import { RUNG_IDS, type RungId } from '@voltrek/core/practice';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartColours } from '../shared/ui/colours';

/** Exams of each person that count: what somebody could not do two years ago says little. */
const EXAMS_MOST = 8;
const WEAKEST = 3;

/** How each skill sits in whom: of the newest exams of each, the share of cases passed. */
export interface Skills {
  /** Ids, in the order of their names' ids. */
  readonly people: readonly string[];
  readonly cells: readonly {
    readonly crewId: string;
    readonly rung: RungId;
    readonly passed: number;
    readonly asked: number;
  }[];
  /** The rungs in which the crew passes least, weakest first; of those that were asked. */
  readonly weakest: readonly RungId[];
}

/** @param exams newest first */
export function skillsOf(exams: readonly Exam[]): Skills {
  const people = [...new Set(exams.map(({ crewId }) => crewId))].sort();
  const cells = people.flatMap((crewId) => {
    const cases = exams
      .filter((exam) => exam.crewId === crewId)
      .slice(0, EXAMS_MOST)
      .flatMap((exam) => exam.cases);
    return RUNG_IDS.flatMap((rung) => {
      const asked = cases.filter((one) => one.rung === rung);
      const passed = asked.filter((one) => one.passed).length;
      return asked.length > 0 ? [{ crewId, rung, passed, asked: asked.length }] : [];
    });
  });
  const shareOf = (rung: RungId): number => {
    const of = cells.filter((cell) => cell.rung === rung);
    return of.reduce((sum, { passed }) => sum + passed, 0) / of.reduce((sum, { asked }) => sum + asked, 0);
  };
  const weakest = RUNG_IDS.filter((rung) => cells.some((cell) => cell.rung === rung))
    .sort((a, b) => shareOf(a) - shareOf(b))
    .slice(0, WEAKEST);
  return { people, cells, weakest };
}

/** Skills by people, so that it fits a phone, each cell with its share: the paler, the weaker. */
export function skillsChart(
  { people, cells }: Skills,
  names: readonly string[],
  rungs: readonly string[],
  c: ChartColours,
): EChartsCoreOption {
  const axisLabel = { color: c.ink, fontSize: 14, interval: 0 };
  const axis = { type: 'category', axisTick: { show: false }, axisLine: { show: false } };
  return {
    grid: { left: 132, right: 8, top: 34, bottom: 6 },
    xAxis: {
      ...axis,
      position: 'top',
      data: names,
      axisLabel: { ...axisLabel, width: 90, overflow: 'truncate' },
    },
    yAxis: { ...axis, data: rungs, inverse: true, axisLabel },
    visualMap: { show: false, min: 0, max: 1, inRange: { color: [c.sheet, c.lamp] } },
    series: [
      {
        type: 'heatmap',
        data: cells.map(({ crewId, rung, passed, asked }) => ({
          value: [people.indexOf(crewId), RUNG_IDS.indexOf(rung), passed / asked],
          label: { show: true, formatter: `${passed} / ${asked}`, color: c.ink, fontSize: 14 },
        })),
        itemStyle: { borderColor: c.line, borderWidth: 1 },
      },
    ],
  };
}
