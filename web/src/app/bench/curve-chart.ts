import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { EChartsCoreOption } from 'echarts/core';
import { Chart } from '../shared/ui/chart';
import type { ChartColours } from '../shared/ui/colours';
import { axis, line } from '../shared/ui/chart-parts';
import { BENCH_PATHS, BENCH_RESULTS, type BenchPath, type BenchResult } from '@words/bench-words';
import { shownUnit } from '@words/units';
import type { Curve } from './curve';
import type { Pair } from './tool';
import { CURVE_CHART as T } from '@words/screens/bench';

/** Room around the grid, px. */
const ROOM = { left: 62, right: 112, top: 26, bottom: 48 };

/** The curve that the values of a tool stand on. A finger on it moves along it, and changes them. */
@Component({
  selector: 'vt-curve-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart],
  template: `
    <div
      class="room"
      #room
      (pointerdown)="begin($event, room)"
      (pointermove)="follow($event, room)"
      (pointerup)="held = false"
      (pointercancel)="held = false"
    >
      <vt-chart [draw]="draw()" [summary]="summary()" />
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    .room {
      height: 100%;
      cursor: ew-resize;
      touch-action: pan-y;
    }
  `,
})
export class CurveChart {
  readonly curve = input.required<Curve>();
  /** The place of a finger along the curve, in the curve's own unit. */
  readonly moved = output<number>();

  protected held = false;

  protected readonly draw = computed(() => {
    const curve = this.curve();
    return (c: ChartColours): EChartsCoreOption => optionsOf(curve, c);
  });
  protected readonly summary = computed(() => {
    const { lines, now, xName, xUnit, yUnit } = this.curve();
    const over = T.over({ name: nameOf(lines[0]!.key), over: xName });
    if (!now) return over;
    const [x, y] = shownIn(this.curve())(now);
    return T.at({
      name: over,
      value: round(y),
      unit: shownUnit(yUnit).unit,
      at: round(x),
      atUnit: shownUnit(xUnit).unit,
    });
  });

  protected begin(event: PointerEvent, room: HTMLElement): void {
    this.held = true;
    room.setPointerCapture(event.pointerId);
    this.follow(event, room);
  }

  protected follow({ clientX }: PointerEvent, room: HTMLElement): void {
    if (!this.held) return;
    const { left, width } = room.getBoundingClientRect();
    const share = (clientX - left - ROOM.left) / (width - ROOM.left - ROOM.right);
    const [least, most] = this.curve().xEnds;
    this.moved.emit(least + Math.min(1, Math.max(0, share)) * (most - least));
  }
}

const round = (value: number): string => String(Number(value.toPrecision(3)));

const nameOf = (key: BenchResult | BenchPath): string =>
  key in BENCH_PATHS ? BENCH_PATHS[key as BenchPath].name : BENCH_RESULTS[key as BenchResult];

/** A point in the units of this device; answers are in them already. */
const shownIn =
  ({ xUnit }: Curve) =>
  ([x, y]: Pair): Pair => [shownUnit(xUnit).show(x), y];

function optionsOf(curve: Curve, c: ChartColours): EChartsCoreOption {
  const shown = shownIn(curve);
  const ends = curve.xEnds.map((x) => shownUnit(curve.xUnit).show(x));
  const colours = [c.ink, c.ok, c.bad, c.positive, c.dim];
  return {
    grid: ROOM,
    xAxis: axis(c, '', {
      min: Math.min(...ends),
      max: Math.max(...ends),
      // A gauge grows as the lead gets thinner.
      inverse: ends[0]! > ends[1]!,
      axisLabel: {
        color: c.dim,
        fontSize: 14,
        hideOverlap: true,
        // Figures as they are, with no commas.
        words: {},
      },
      splitLine: { show: false },
      name: `${curve.xName}, ${shownUnit(curve.xUnit).unit}`.replace(/, $/, ''),
      nameLocation: 'middle',
      nameGap: 28,
    }),
    yAxis: axis(c, shownUnit(curve.yUnit).unit, { scale: true }),
    series: [
      ...curve.lines.map(({ key, points }, i) =>
        line(
          nameOf(key),
          points.map((p) => [...shown(p)] as [number, number]),
          colours[i % colours.length]!,
          {
            silent: true,
            labelLayout: { moveOverlap: 'shiftY' },
            endLabel: {
              show: curve.lines.length > 1,
              formatter: '{a}',
              color: colours[i % colours.length],
              fontSize: 14,
              width: ROOM.right - 14,
              lineHeight: 15,
              overflow: 'break',
            },
          },
        ),
      ),
      {
        type: 'scatter',
        data: curve.now ? [[...shown(curve.now)]] : [],
        symbolSize: 22,
        itemStyle: { color: c.lamp, borderColor: c.ink, borderWidth: 3, opacity: 1 },
        silent: true,
        z: 5,
      },
    ],
  };
}
