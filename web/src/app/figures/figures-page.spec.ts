import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { provideState, provideStore } from '@ngrx/store';
import type { HouseFigures, JobFilter } from '@voltrek/contracts';
import { of } from 'rxjs';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { kitCopy } from '../shared/data/kit';
import { LastAsked } from '../shared/data/last-asked';
import { FiguresPage } from './figures-page';

const FIGURES: HouseFigures = {
  jobs: 12,
  medianMinutes: 23.6,
  minutesToRunning: [1, 2, 3, 0, 0, 0, 1],
  batteriesFitted: 2,
  charged: 4,
  promises: { kept: 3, late: 1 },
  rechecks: { done: 5, due: 2, late: 1 },
  traits: {
    vanId: [{ key: 'van-1', jobs: 12, returned: 2 }],
    by: [{ key: 'crew-1', jobs: 12, returned: 2 }],
    machineClass: [{ key: 'truck', jobs: 12, returned: 2 }],
    startedBy: [
      { key: 'donor', jobs: 7, returned: 0 },
      { key: null, jobs: 5, returned: 2 },
    ],
    suspect: [{ key: 'joint', jobs: 12, returned: 2 }],
    verdict: [{ key: 'charge-first', jobs: 12, returned: 2 }],
  },
  returns: [{ verdict: 'charge-first', suspect: 'charging', jobs: 2 }],
  overridden: [{ key: 'crankTriesMax', jobs: 1 }],
  kit: [{ key: 'pack-1', tries: 9, failed: 3 }],
  odds: [{ from: 0.9, count: 40, claimed: 0.96, met: 0.86 }],
};

describe('the page of figures', () => {
  async function show(figures: HouseFigures = FIGURES) {
    const asked: JobFilter[] = [];
    const api: Partial<Api> = {
      figures: (filter) => {
        asked.push(filter);
        return of(figures);
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(crewCopy),
        provideState(kitCopy),
        { provide: Api, useValue: api },
      ],
    });
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const fixture = TestBed.createComponent(FiguresPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const press = async (name: RegExp): Promise<void> => {
      const buttons = [...root.querySelectorAll('button')];
      buttons.find((b) => name.test(b.textContent))!.click();
      await fixture.whenStable();
    };
    const log = () => TestBed.inject(LastAsked).log();
    return { fixture, root, asked, navigate, press, log };
  }

  it('answers each question in words, with a bar for each value', async () => {
    const { root } = await show();
    const text = root.textContent.replaceAll(/\s+/g, ' ');
    for (const words of [
      '12 closed jobs',
      'did within 24 min of arrival',
      'Came back within 30 days: 2 of 12',
      'Arrivals: 3 in time, 1 late',
      '3 of 9 tries',
      'Over 40 tries the odds were off by 10 in 100',
    ])
      expect(text).toContain(words);
  });

  it('opens the jobs behind a bar in the log, narrowed to the same time', async () => {
    const { press, log, navigate, asked } = await show();
    const { from } = asked.at(-1)!;
    await press(/Not started/);
    expect(log()).toEqual({ text: '', filter: { from, startedBy: 'none' }, pages: [''] });
    expect(navigate).toHaveBeenCalledWith(['/log']);
    await press(/Charge first, then charging/);
    expect(log().filter).toEqual({ from, verdict: 'charge-first', returned: 'yes' });
    await press(/over 90 min/);
    expect(log().filter).toEqual({ from, runningFrom: '90' });
    await press(/pack-1/);
    expect(log().filter).toEqual({ from, kit: 'pack-1' });
  });

  it('counts from one day to another, both included, by the clock on the wall', async () => {
    const { root, asked, fixture, press } = await show();
    await press(/^\s*All/);
    expect(asked.at(-1)).toEqual({});
    const [first, last] = [...root.querySelectorAll<HTMLInputElement>('input[type=date]')];
    first!.value = '2026-11-02';
    first!.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    last!.value = '2026-11-08';
    last!.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(asked.at(-1)).toEqual({
      from: new Date(2026, 10, 2).toISOString(),
      to: new Date(2026, 10, 9).toISOString(),
    });
    expect([first!.value, last!.value]).toEqual(['2026-11-02', '2026-11-08']);
    await press(/7 days/);
    expect(asked.at(-1)!.to).toBeUndefined();
  });

  it('narrows by a trait, and says where tries are too few to tell', async () => {
    const few = { ...FIGURES, odds: [{ from: 0.9, count: 12, claimed: 0.95, met: 0.5 }] };
    const { root, asked, fixture } = await show(few);
    const select = [...root.querySelectorAll('select')].find((s) => s.querySelector('[value=joint]'))!;
    select.value = 'joint';
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(asked.at(-1)!.suspect).toBe('joint');
    expect(root.textContent).toContain('12 tries: too few to tell. 30 tell.');
  });
});
