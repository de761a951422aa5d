import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { rankWays, type Way, type WayPoint } from '@voltrek/core/plan';
import { provideState, provideStore } from '@ngrx/store';
import { Frames } from '../../../shared/model/frames';
import type { ChartColours } from '../../../shared/ui/colours';
import * as echarts from 'echarts';
import { crewCopy } from '../../../shared/data/crew';
import { sessionFeature } from '../../../shared/data/session';
import { WayList } from './way-list';
import { waysChart } from './ways-chart';

const point = (minutes: number, start: number, waitMinutes = 0): WayPoint => ({
  waitMinutes,
  minutes,
  start,
  steps: [
    { kind: 'join', optionId: 'van', minutes: minutes - waitMinutes - 0.5 },
    ...(waitMinutes > 0 ? [{ kind: 'charge', optionId: 'van', minutes: waitMinutes } as const] : []),
    { kind: 'crank', minutes: 0.5 },
  ],
});
const way = (id: string, points: readonly WayPoint[], more: Partial<Way> = {}): Way => ({
  id,
  optionId: id,
  thenOptionId: null,
  kind: 'join',
  mends: false,
  points,
  ...more,
});
const WAYS: readonly Way[] = [
  way('van', [point(4.5, 0.62), point(9.5, 0.93, 5), point(16.5, 0.97, 12)]),
  way('pack', [point(2.5, 0.71)]),
  way('own', [point(0.5, 0.04)], { optionId: null, kind: 'own' }),
];
const NAMES: Readonly<Record<string, string>> = { van: 'Service van', pack: 'Lithium pack' };
const nameOf = (id: string): string => NAMES[id] ?? id;

async function show(sureness: number, chosenId: string | null = null) {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideStore(),
      provideState(sessionFeature),
      provideState(crewCopy),
    ],
  });
  const fixture = TestBed.createComponent(WayList);
  const inputs = { ways: WAYS, ranked: rankWays(WAYS, sureness), chosenId, sureness, bar: sureness, nameOf };
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  const root = fixture.nativeElement as HTMLElement;
  // They come some at a time.
  while (root.querySelectorAll('[role=radio]').length < WAYS.length)
    await TestBed.inject(Frames).after('turn');
  const rows = [...root.querySelectorAll('[role=radio]')].map((row) =>
    [...row.querySelectorAll('.minutes, .name, .odds, .step')]
      .map((part) => part.textContent.trim())
      .join(', '),
  );
  return { fixture, root, rows };
}

describe('the list of ways', () => {
  it('tells of each the minutes to how sure one wants to be, soonest first, with its steps', async () => {
    const { rows, root } = await show(0.9);
    expect(rows[0]).toBe('10 min, Service van, 93 in 100, clamp on, it charges 5 min, crank');
    expect(rows[1]).toContain('3 min, Lithium pack, 71 in 100');
    expect(root.querySelector('h2.part')!.textContent).toBe('Not likely');
    expect(rows[2]).toBe('1 min, Nothing joined: crank it as it is, 4 in 100');
  });

  it('moves with how sure one wants to be', async () => {
    const { rows, fixture, root } = await show(0.7);
    expect(rows[0]).toContain('Lithium pack');
    const picked: number[] = [];
    fixture.componentInstance.surenessPicked.subscribe((share) => picked.push(share));
    const slider = root.querySelector<HTMLInputElement>('input[type=range]')!;
    expect(slider.getAttribute('aria-valuetext')).toBe('7 in 10');
    slider.value = '6';
    slider.dispatchEvent(new Event('input'));
    expect(picked).toEqual([0.99]);
  });

  it('says what is looked at in words beside the drawing', async () => {
    const { root } = await show(0.9, 'van');
    expect(root.querySelector('[role=radio][aria-checked=true]')!.textContent).toContain('Service van');
    const fixture = root.querySelector('vt-chart [role=img]');
    expect(fixture?.getAttribute('aria-label')).toBe('Odds by minutes. Service van: 10 min, 93 in 100.');
  });
});

describe('the chart of ways', () => {
  const colours = new Proxy({} as ChartColours, { get: (_, name) => String(name) });
  const series = (sureness: number, chosen = 0) =>
    waysChart(WAYS, rankWays(WAYS, sureness)[chosen]!, sureness, colours).series as {
      data: [number, number][];
    }[];

  it('draws the best that can be had as a line that holds, all else as dots, and fills what is looked at', () => {
    const [dots, line, marks, filled] = series(0.9);
    expect(dots!.data.length).toBe(5);
    expect(marks!.data).toEqual([
      [0.5, 4],
      [2.5, 71],
      [9.5, 93],
      [16.5, 97],
    ]);
    expect(line!.data.at(-1)).toEqual([30, 97]);
    expect(filled!.data).toEqual([[9.5, 93]]);
  });

  it('can be drawn before a way is known and after, all dots behind in one path', () => {
    const place = document.createElement('div');
    place.style.cssText = 'width: 500px; height: 158px';
    document.body.append(place);
    const chart = echarts.init(place, null, { renderer: 'svg' });
    const curves = (): number =>
      [...place.querySelectorAll('path')]
        .map((path) => path.getAttribute('d')!.match(/A/g)?.length ?? 0)
        .reduce((most, arcs) => Math.max(most, arcs), 0);
    const ink = { ...colours, ink: '#000', dim: '#555', sheet: '#fff', lamp: '#f80', line: '#ccc' };
    const draw = (ways: readonly Way[]): void =>
      chart.setOption(waysChart(ways, rankWays(ways, 0.9)[0] ?? null, 0.9, ink), { notMerge: true });
    draw([]);
    const before = curves();
    draw(WAYS);
    // The five dots share a path.
    expect(before).toBeLessThan(5);
    expect(curves()).toBe(5);
    draw([]);
    draw(WAYS.slice(0, 1));
    expect(curves()).toBe(3);
    chart.dispose();
    place.remove();
  });
});
