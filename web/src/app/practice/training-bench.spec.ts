import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { InstrumentNow } from '@voltrek/contracts';
import type { CaseReading } from '@voltrek/core/practice';
import { TrainingBench } from './training-bench';

const NOW: InstrumentNow = {
  instrument: 'meter',
  state: 'ready',
  name: 'A meter',
  value: null,
  overload: false,
  at: '2026-01-01T00:00:00.000Z',
};
const READING: CaseReading = {
  code: 'order-2',
  actions: [],
  probes: { red: 'battery-plus', black: 'battery-minus' },
  around: null,
};

describe('TrainingBench', () => {
  function made() {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        TrainingBench,
      ],
    });
    return { bench: TestBed.inject(TrainingBench), http: TestBed.inject(HttpTestingController) };
  }

  it('has what is linked and answers, and nothing without a server', async () => {
    const { bench, http } = made();
    const looks = bench.look();
    http
      .expectOne('/api/instruments')
      .flush([NOW, { ...NOW, instrument: 'clamp', state: 'lost' }] satisfies InstrumentNow[]);
    await looks;
    expect([bench.has('meter'), bench.has('clamp')]).toEqual([true, false]);
    const again = bench.look();
    http.expectOne('/api/instruments').error(new ProgressEvent('error'));
    await again;
    expect(bench.linked()).toEqual([]);
  });

  it('reads to a thousandth, and tells why where nothing came', async () => {
    const { bench, http } = made();
    const reads = bench.read(READING);
    expect(bench.isReading()).toBeTrue();
    const asked = http.expectOne('/api/instruments/readings');
    expect(asked.request.body).toEqual(READING);
    asked.flush({ ...NOW, value: 11.92349 });
    expect(await reads).toBe(11.923);
    expect([bench.isReading(), bench.fault()]).toEqual([false, null]);
    const past = bench.read(READING);
    http.expectOne('/api/instruments/readings').flush({ ...NOW, overload: true });
    expect(await past).toBeNull();
    expect(bench.fault()).toContain('Past the range');
    const silent = bench.read(READING);
    http
      .expectOne('/api/instruments/readings')
      .flush(
        { status: 503, title: 'x', detail: 'The linked instrument does not answer.' },
        { status: 503, statusText: 'x' },
      );
    expect(await silent).toBeNull();
    expect(bench.fault()).toContain('does not answer');
    bench.choose(false);
    expect(bench.fault()).toBeNull();
  });
});
