import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Outlook } from '@voltrek/core/belief';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { House } from '../shared/data/house';
import { PlanRunner } from '../workers/plan-runner';
import { WatchPageView } from './watch-page';
import { WatchStore } from './watch-store';

const vehicle = (id: string) => ({
  id,
  plate: `QK ${id}`,
  fleetNumber: null,
  serialNumber: null,
  modelName: 'Made Van',
  placeName: 'Fish quay',
  owner: null,
  standing: { id },
});
const OUTLOOKS: Readonly<Record<string, Outlook>> = {
  1: { night: 1, start: 0.6, reason: 'charge', cure: { kind: 'charge', start: 0.95 } },
  2: { night: 1, start: 0.98, reason: null, cure: null },
  3: { night: 1, start: 0.2, reason: 'battery', cure: { kind: 'replace', start: 0.93 } },
};
const settled = async (): Promise<void> => {
  await new Promise((done) => setTimeout(done));
};

describe('the page before the frost', () => {
  it('asks for the forecast, weighs page by page, and lists those under the bar, worst first', async () => {
    const asked: unknown[] = [];
    const runner = {
      begin: () => ({
        isCurrent: () => true,
        ask: (what: (worker: unknown) => Promise<unknown>) =>
          what({
            outlooks: (all: readonly { id: string }[], nights: unknown) => {
              asked.push(nights);
              return Promise.resolve(all.map(({ id }) => OUTLOOKS[id]));
            },
          }),
      }),
      stop: () => undefined,
    };
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([]),
        {
          provide: House,
          useValue: { rules: () => Promise.resolve({ rules: DEFAULT_RULES, settings: [] }) },
        },
      ],
    });
    TestBed.overrideComponent(WatchPageView, {
      set: { providers: [{ provide: PlanRunner, useValue: runner }, WatchStore] },
    });
    const fixture = TestBed.createComponent(WatchPageView);
    const root = fixture.nativeElement as HTMLElement;
    const http = TestBed.inject(HttpTestingController);
    fixture.detectChanges();
    expect(root.textContent).toContain('Ask for the forecast');
    root.querySelector<HTMLInputElement>('.ask input')!.value = 'Fish quay';
    root.querySelector<HTMLButtonElement>('.ask button')!.click();
    http.expectOne('/api/instruments/forecast?place=Fish%20quay').flush({
      place: 'Fish quay',
      nights: [
        { day: '2026-12-05', lowC: -4 },
        { day: '2026-12-06', lowC: -15 },
      ],
    });
    await settled();
    http.expectOne('/api/watch?after=').flush({ vehicles: [vehicle('1'), vehicle('2')], next: '2' });
    await settled();
    fixture.detectChanges();
    expect(root.querySelector('.sum')!.textContent).toContain('2 vehicles weighed');
    http.expectOne('/api/watch?after=2').flush({ vehicles: [vehicle('3')], next: null });
    await settled();
    fixture.detectChanges();
    expect(asked[0]).toEqual([
      { lowC: -4, daysAhead: 1 },
      { lowC: -15, daysAhead: 2 },
    ]);
    expect(root.querySelector('.coldest')!.textContent).toContain('15');
    expect(root.querySelector('.sum')!.textContent).toContain('2 vehicles of 3 under 90 in 100');
    const rows = [...root.querySelectorAll('.ruled li')].map((row) => row.textContent);
    expect(rows.length).toBe(2);
    expect(rows[0]).toContain('QK 3');
    expect(rows[0]).toContain('Weak battery');
    expect(rows[1]).toContain('QK 1');
    expect(root.textContent).toContain('No owner on the list may be written to.');
  });
});
