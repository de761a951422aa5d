import { provideZonelessChangeDetection } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideState, provideStore } from '@ngrx/store';
import * as echarts from 'echarts';
import type { EChartsCoreOption } from 'echarts/core';
import { ChartPictures } from '../../workers/chart-pictures';
import { crewCopy } from '../data/crew';
import { sessionFeature } from '../data/session';
import { Chart } from './chart';
import type { ChartColours } from './colours';
import { axis, line, type Pair } from './chart-parts';
import { Frames } from '../model/frames';
import { withTickWords } from './tick-words';

const WAVE = Array.from({ length: 40 }, (_, i): Pair => [i / 10, 12 + Math.sin(i / 3)]);

/** Two grids, two lines in the lower one, and an axis that stays hidden. */
const twoGrids = (c: ChartColours): EChartsCoreOption => ({
  grid: [{ height: '30%' }, { top: '55%', height: '30%' }],
  xAxis: [axis(c, '', { show: false }), axis(c, 's', { gridIndex: 1 })],
  yAxis: [axis(c, 'V', { scale: true, splitNumber: 3 }), axis(c, 'rpm', { gridIndex: 1 })],
  series: [
    line('posts', WAVE, c.ink),
    line('starter', WAVE, c.ink, { xAxisIndex: 1, yAxisIndex: 1 }),
    line('speed', WAVE, c.dim, { xAxisIndex: 1, yAxisIndex: 1 }),
  ],
});

const oneGrid =
  (name: string, more: object = {}) =>
  (c: ChartColours): EChartsCoreOption => ({
    grid: {},
    xAxis: axis(c, 's'),
    yAxis: axis(c, 'A'),
    series: [line(name, WAVE, c.ink)],
    ...more,
  });

describe('Chart', () => {
  let fixture: ComponentFixture<Chart>;
  let seen: ChartColours;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const canvas = (): HTMLElement => host().querySelector('.canvas')!;
  const textsOf = (element: Element): string[] =>
    [...element.querySelectorAll('text')].map((t) => t.textContent).sort();
  const soon = (ms = 0) => new Promise((resolve) => setTimeout(resolve, ms));
  const until = async (holds: () => boolean) => {
    for (const from = performance.now(); !holds(); await soon(20))
      if (performance.now() - from > 20_000) throw new Error(`never came: ${holds.toString()}`);
  };

  function begin(pictures?: Pick<ChartPictures, 'draw'>): void {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(sessionFeature),
        provideState(crewCopy),
        ...(pictures ? [{ provide: ChartPictures, useValue: pictures }] : []),
      ],
    });
    fixture = TestBed.createComponent(Chart);
    fixture.componentRef.setInput('summary', 'Volts in time.');
    host().style.cssText = 'width: 400px; height: 300px';
    document.body.append(host());
  }

  async function show(draw: (c: ChartColours) => EChartsCoreOption): Promise<void> {
    fixture.componentRef.setInput('draw', (c: ChartColours) => {
      seen = c;
      return draw(c);
    });
    await fixture.whenStable();
  }

  afterEach(() => host().remove());

  it('is drawn by a worker as it would be drawn here, word for word and place for place', async () => {
    begin();
    await show(twoGrids);
    await until(() => textsOf(host()).length > 0);
    const here = document.createElement('div');
    here.style.cssText = 'width: 400px; height: 300px';
    document.body.append(here);
    const whole = echarts.init(here, null, { renderer: 'svg' });
    const { grid, ...others } = twoGrids(seen);
    const grids = (grid as object[]).map((one) => ({ ...one, outerBoundsMode: 'none' }));
    whole.setOption({
      animation: false,
      textStyle: { fontFamily: 'Overpass Variable, system-ui, sans-serif', fontSize: 14 },
      ...others,
      grid: grids,
    });
    const placesOf = (element: Element) =>
      [...element.querySelectorAll('text')]
        .map((t) => ({ text: t.textContent, at: t.getBoundingClientRect() }))
        .sort((a, b) => a.text.localeCompare(b.text) || a.at.y - b.at.y);
    const origin = { there: host().getBoundingClientRect(), here: here.getBoundingClientRect() };
    const drawn = placesOf(host());
    expect(textsOf(host())).toContain('starter');
    expect(textsOf(host())).toEqual(textsOf(here));
    for (const [i, { text, at }] of placesOf(here).entries()) {
      const off = drawn[i]!.at;
      const away = Math.hypot(
        off.x - origin.there.x - (at.x - origin.here.x),
        off.y - origin.there.y - (at.y - origin.here.y),
      );
      // How wide and high letters come out the worker only estimates.
      expect(away).withContext(text).toBeLessThan(4);
    }
    whole.dispose();
    here.remove();
  });

  it('has no style of its own, which the page’s policy would refuse', async () => {
    begin();
    await show(twoGrids);
    await until(() => textsOf(host()).length > 0);
    expect(host().querySelector('svg style')).toBeNull();
  });

  it('is told to other work as under way until its picture is there, or until it is gone', async () => {
    let give: (svg: string) => void = () => undefined;
    begin({ draw: () => new Promise((resolve) => (give = resolve)) });
    await show(oneGrid('posts'));
    let isHeld = true;
    const told = jasmine.createSpy('told');
    void TestBed.inject(Frames)
      .after('quiet')
      .then(() => (isHeld = false))
      .then(told);
    await soon(100);
    expect(isHeld).toBeTrue();
    give('<svg></svg>');
    await until(() => !isHeld);
    expect(canvas().innerHTML).toBe('<svg></svg>');
    const late = TestBed.createComponent(Chart);
    late.componentRef.setInput('summary', 'Volts in time.');
    late.componentRef.setInput('draw', oneGrid('posts'));
    late.detectChanges();
    late.destroy();
    await TestBed.inject(Frames).after('quiet');
    expect(told).toHaveBeenCalledTimes(1);
  });

  it('draws the last of what is asked for meanwhile, and nothing that was asked for a moment only', async () => {
    const asked: string[] = [];
    const gives: (() => void)[] = [];
    begin({
      draw: (of) => {
        const { name } = (of.series as { name: string }[])[0]!;
        asked.push(name);
        return new Promise((resolve) => gives.push(() => resolve(`<svg><text>${name}</text></svg>`)));
      },
    });
    await show(oneGrid('first'));
    await until(() => gives.length === 1);
    await show(oneGrid('second'));
    await show(oneGrid('third'));
    gives[0]!();
    await until(() => gives.length === 2);
    gives[1]!();
    await until(() => textsOf(host()).includes('third'));
    await soon(800);
    expect(asked).toEqual(['first', 'third']);
  });

  it('keeps what it shows when a picture cannot be had, and tries the next', async () => {
    let isThere = false;
    begin({
      draw: () => (isThere ? Promise.resolve('<svg></svg>') : Promise.reject(new Error('no worker'))),
    });
    await show(oneGrid('posts'));
    await TestBed.inject(Frames).after('quiet');
    expect(canvas().childElementCount).toBe(0);
    expect(canvas().getAttribute('aria-label')).toBe('Volts in time.');
    isThere = true;
    await show(oneGrid('starter'));
    await until(() => canvas().childElementCount === 1);
    expect(canvas().innerHTML).toBe('<svg></svg>');
  });

  it('answers to a pointer once one comes, if it has figures to tell, and goes on with what is drawn then', async () => {
    begin();
    await show(oneGrid('posts', { tooltip: { trigger: 'axis' } }));
    await until(() => textsOf(host()).includes('posts'));
    expect(echarts.getInstanceByDom(canvas())).toBeUndefined();
    canvas().dispatchEvent(new PointerEvent('pointerenter'));
    await until(() => canvas().querySelector('svg') !== null && textsOf(host()).includes('posts'));
    await show(oneGrid('starter', { tooltip: { trigger: 'axis' } }));
    await until(() => textsOf(host()).includes('starter'));
    expect(textsOf(host())).not.toContain('posts');
    expect(canvas().getAttribute('_echarts_instance_')).not.toBeNull();
  });

  it('stays a picture under a pointer that it has nothing to tell', async () => {
    begin();
    await show(oneGrid('posts'));
    await until(() => textsOf(host()).includes('posts'));
    canvas().dispatchEvent(new PointerEvent('pointerenter'));
    await soon(200);
    expect(canvas().getAttribute('_echarts_instance_')).toBeNull();
  });
});

describe('withTickWords', () => {
  const labels = (axisLabel: object) => {
    const { xAxis } = withTickWords({ xAxis: { axisLabel } }) as {
      xAxis: { axisLabel: { formatter: (tick: number) => string } }[];
    };
    return xAxis[0]!.axisLabel.formatter;
  };

  it('puts words in place of figures, and leaves the other figures as they are', () => {
    const told = labels({ words: { 0: 'now', 30: '30 min' } });
    expect([0, 10, 30, 1445, 0.1 + 0.2].map(told)).toEqual(['now', '10', '30 min', '1445', '0.3']);
  });

  it('leaves out the figures where only words are to stand', () => {
    const told = labels({ words: { 0: 'never', 50: 'half' }, onlyWords: true });
    expect([0, 25, 50].map(told)).toEqual(['never', '', 'half']);
  });

  it('changes nothing else', () => {
    const of = { yAxis: [{ axisLabel: { color: 'red' } }], series: [] };
    expect(withTickWords(of)).toEqual(of);
  });
});
