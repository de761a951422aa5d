import { of } from 'rxjs';
import { provideRouter } from '@angular/router';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { JobFilter, JobSummary } from '@voltrek/contracts';
import { provideState, provideStore } from '@ngrx/store';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { kitCopy } from '../shared/data/kit';
import { LastAsked } from '../shared/data/last-asked';
import { LogPage } from './log-page';

const job = (id: string): JobSummary =>
  ({
    ...{ id, callNumber: 7, title: `Car ${id}`, placeName: 'Yard', closedAt: '2027-01-15T02:00:00.000Z' },
    ...{ verdict: 'charge-first', suspect: null, lowestRestVolts: 11.82 },
  }) as unknown as JobSummary;

describe('the log', () => {
  async function show(pages: Readonly<Record<string, { jobs: readonly JobSummary[]; next: string | null }>>) {
    const asked: (readonly [string, string | undefined, string])[] = [];
    const log = (text: string, { verdict }: JobFilter, after: string) => {
      asked.push([text, verdict, after]);
      return of(pages[after] ?? { jobs: [], next: null });
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(crewCopy),
        provideState(kitCopy),
        { provide: Api, useValue: { log } },
      ],
    });
    const fixture = TestBed.createComponent(LogPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const tap = async (name: string): Promise<void> => {
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!.click();
      await fixture.whenStable();
    };
    return { fixture, root, asked, tap };
  }
  const titles = (root: HTMLElement): (string | null)[] =>
    [...root.querySelectorAll('li a strong')].map((cell) => cell.textContent);

  it('shows a closed job with its time, volts and verdict, and leads to its verdict', async () => {
    const { root } = await show({ '': { jobs: [job('a')], next: null } });
    const link = root.querySelector('li a')!;
    expect(link.getAttribute('href')).toBe('/job/a/verdict');
    expect(link.textContent).toContain('11.82 V');
    expect(root.querySelector('.pages')).toBeNull();
  });

  it('goes to older pages and back, and begins anew when something else is asked', async () => {
    const { root, asked, tap } = await show({
      '': { jobs: [job('a')], next: 'p2' },
      p2: { jobs: [job('b')], next: null },
    });
    await tap('Older');
    expect(titles(root)).toEqual(['Car b']);
    await tap('Newer');
    expect(titles(root)).toEqual(['Car a']);
    await tap('Older');
    await tap('Charge first');
    expect(asked.at(-1)).toEqual(['', 'charge-first', '']);
  });

  it('says that none matches only when the server said so', async () => {
    const { fixture, root } = await show({});
    const field = root.querySelector('input')!;
    field.value = 'zzz';
    field.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    expect(root.querySelector('li.none')).not.toBeNull();
  });

  it('comes back with the same question', async () => {
    const { asked, tap } = await show({ '': { jobs: [job('a')], next: null } });
    await tap('Charge first');
    const again = TestBed.createComponent(LogPage);
    await again.whenStable();
    expect(asked.at(-1)).toEqual(['', 'charge-first', '']);
  });

  it('names each part of a filter that a page set, and takes one away at a tap', async () => {
    const { fixture, root, tap } = await show({ '': { jobs: [job('a')], next: null } });
    const { log } = TestBed.inject(LastAsked);
    log.set({
      text: '',
      filter: { startedBy: 'none', returned: 'yes', verdict: 'charge-first' },
      pages: [''],
    });
    await fixture.whenStable();
    const keys = [...root.querySelectorAll('vt-filter-line button')].map((b) => b.textContent.trim());
    expect(keys).toEqual(['Not started', 'came back']);
    await tap('Not started');
    expect(log().filter).toEqual({ returned: 'yes', verdict: 'charge-first' });
  });
});
