import { provideZonelessChangeDetection } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideState, provideStore } from '@ngrx/store';
import type { EChartsCoreOption } from 'echarts/core';
import { sessionFeature } from '../state/session';
import { Chart } from './chart';
import type { ChartColours } from './colours';
import { axis, line, type Pair } from './chart-parts';
import echarts from './echarts';
import { Drawings } from './idle';

const WAVE = Array.from({ length: 40 }, (_, i): Pair => [i / 10, 12 + Math.sin(i / 3)]);

/** Two grids, two lines in the lower one, and an axis that stays hidden. */
const twoGrids = (c: ChartColours): EChartsCoreOption => ({
  grid: [{ height: '30%' }, { top: '55%', height: '30%' }],
  xAxis: [axis(c, '', { show: false }), axis(c, 's', { gridIndex: 1 })],
  yAxis: [axis(c, 'V', { scale: true }), axis(c, 'rpm', { gridIndex: 1 })],
  series: [
    line('posts', WAVE, c.ink),
    line('starter', WAVE, c.ink, { xAxisIndex: 1, yAxisIndex: 1 }),
    line('speed', WAVE, c.dim, { xAxisIndex: 1, yAxisIndex: 1 }),
  ],
});

describe('Chart', () => {
  let fixture: ComponentFixture<Chart>;
  let seen: ChartColours;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const textsOf = (element: Element): string[] =>
    [...element.querySelectorAll('text')].map((t) => t.textContent).sort();

  async function show(draw: (c: ChartColours) => EChartsCoreOption): Promise<void> {
    fixture.componentRef.setInput('draw', (c: ChartColours) => {
      seen = c;
      return draw(c);
    });
    await fixture.whenStable();
  }

  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), provideStore(), provideState(sessionFeature)],
    });
    fixture = TestBed.createComponent(Chart);
    fixture.componentRef.setInput('summary', 'Volts in time.');
    host().style.cssText = 'width: 400px; height: 300px';
    document.body.append(host());
  });
  afterEach(() => host().remove());

  it('draws in steps what it would draw in one go', async () => {
    await show(twoGrids);
    await TestBed.inject(Drawings).done();
    const once = document.createElement('div');
    once.style.cssText = 'width: 400px; height: 300px';
    document.body.append(once);
    const whole = echarts.init(once, null, { renderer: 'svg' });
    whole.setOption({ animation: false, textStyle: { fontSize: 14 }, ...twoGrids(seen) });
    expect(textsOf(host())).toContain('starter');
    expect(textsOf(host())).toEqual(textsOf(once));
    expect(host().querySelectorAll('path').length).toBe(once.querySelectorAll('path').length);
    whole.dispose();
    once.remove();
  });

  it('holds other work back until the last step, or until it is gone', async () => {
    await show(twoGrids);
    let isHeld = true;
    const done = TestBed.inject(Drawings)
      .done()
      .then(() => (isHeld = false));
    await new Promise((resolve) => setTimeout(resolve));
    expect(isHeld).toBeTrue();
    fixture.destroy();
    await done;
    expect(isHeld).toBeFalse();
  });

  it('is not made any more once its place is gone', async () => {
    await show(twoGrids);
    for (let turns = 0; turns < 4; turns++) {
      const late = TestBed.createComponent(Chart);
      late.componentRef.setInput('summary', 'Volts in time.');
      late.componentRef.setInput('draw', twoGrids);
      late.detectChanges();
      const canvas = (late.nativeElement as HTMLElement).querySelector<HTMLElement>('.canvas')!;
      // In the middle of fetching its code, of making it, or of drawing.
      for (let i = 0; i < turns; i++) await new Promise((resolve) => setTimeout(resolve));
      late.destroy();
      await new Promise((resolve) => setTimeout(resolve, 50));
      const left = echarts.getInstanceByDom(canvas);
      expect(left === undefined || left.isDisposed())
        .withContext(`after ${turns} turns`)
        .toBeTrue();
    }
  });

  it('shows a newer picture that comes while the first is half drawn, and nothing of the first', async () => {
    await show(twoGrids);
    await show((c) => ({
      grid: {},
      xAxis: axis(c, 's'),
      yAxis: axis(c, 'A'),
      series: [line('leads', WAVE, c.ink)],
    }));
    await TestBed.inject(Drawings).done();
    expect(textsOf(host())).toContain('leads');
    expect(textsOf(host())).not.toContain('posts');
  });
});
