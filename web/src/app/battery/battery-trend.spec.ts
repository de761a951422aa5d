import type { BatteryEntry } from '@voltrek/core/job';
import type { ChartColours } from '../shared/ui/colours';
import { batteryChart, type BatteryLife, batterySummary, trendOf } from './battery-trend';

const entry = (at: string, more: Partial<BatteryEntry>): BatteryEntry => ({
  jobId: 'job',
  at,
  battery: 0,
  kind: 'strength',
  volts: null,
  share: null,
  spread: null,
  ...more,
});
const life = (entries: readonly BatteryEntry[]): BatteryLife => ({ entries });
const AGEING = life(
  [0.95, 0.88, 0.8, 0.74].flatMap((share, i) => [
    entry(`202${4 + i}-01-10T08:00:00Z`, { share, spread: 0.04 }),
    entry(`202${4 + i}-01-10T08:10:00Z`, { kind: 'rest', volts: 12.4 }),
    entry(`202${4 + i}-01-10T08:20:00Z`, { kind: 'jump' }),
  ]),
);
const COLOURS = new Proxy({}, { get: () => '#000' }) as ChartColours;

describe('battery trend', () => {
  it('falls below the need some time ahead, and says by how much a year', () => {
    const trend = trendOf(AGEING, 0.6)!;
    const day = trend.fallsBelow.day! * 86_400_000;
    expect(day).toBeGreaterThan(Date.parse('2027-06-01'));
    expect(day).toBeLessThan(Date.parse('2031-01-01'));
    expect(batterySummary(AGEING, trend)).toBe('4 readings of its strength, 7 % of its rating lost a year');
    expect(batterySummary(life([]), trendOf(life([]), 0.6))).toContain('No reading');
  });

  it('draws readings, trend with its band, need, rest volts and jumps', () => {
    const { series } = batteryChart(AGEING, 0.6, trendOf(AGEING, 0.6), COLOURS) as {
      series: { name: string; data: number[][]; markLine?: { data: unknown[] } }[];
    };
    const named = (name: string) => series.find((s) => s.name === name)!;
    expect(named('read').data.map(([, y]) => y)).toEqual([95, 88, 80, 74]);
    expect(named('rest').data.length).toBe(4);
    expect(named('rest').markLine!.data.length).toBe(4);
    expect(named('needed').data.every(([, y]) => y === 60)).toBeTrue();
    const loose = batteryChart(AGEING, null, trendOf(AGEING, null), COLOURS) as { series: typeof series };
    expect(loose.series.find((s) => s.name === 'needed')!.data).toEqual([]);
    const ends = ['low', 'likely', 'high'].map((name) => named(name).data.at(-1)![1]!);
    expect(ends[0]!).toBeLessThan(ends[1]!);
    expect(ends[1]!).toBeLessThan(ends[2]!);
  });
});
