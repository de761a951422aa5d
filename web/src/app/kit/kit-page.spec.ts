import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Van } from '@voltrek/contracts';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore } from '@ngrx/store';
import { of, throwError } from 'rxjs';
import { HttpErrorResponse } from '@angular/common/http';
import { KIT } from '../../testing/fixtures';
import { Api } from '../shared/data/api';
import { kitCopy } from '../shared/data/kit';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { KitPage } from './kit-page';

describe('the kit page', () => {
  const mark = { id: 'm1', kitItemId: 'lithium', need: 'recharge', since: '2027-01-15T02:00:00.000Z' };
  const van = (marks: readonly object[]): Van =>
    ({ id: 'van-1', name: 'Van one', retired: false, kit: KIT, marks }) as unknown as Van;

  async function show(api: Partial<Api>): Promise<{ root: HTMLElement; settle: () => Promise<unknown> }> {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(kitCopy),
        provideState(sessionFeature),
        provideState(crewCopy),
        provideEffects(kitCopy.effects),
        { provide: Api, useValue: api },
      ],
    });
    const fixture = TestBed.createComponent(KitPage);
    await fixture.whenStable();
    return { root: fixture.nativeElement as HTMLElement, settle: () => fixture.whenStable() };
  }

  it('lists what each van carries, and what it can do', async () => {
    const { root } = await show({ vans: () => of([van([])]) });
    const rows = [...root.querySelectorAll('section[aria-labelledby=van-1] li')];
    expect(rows.length).toBe(KIT.length);
    expect(rows[1]!.textContent).toMatch(/Heavy set.*25 mm².*loses [\d.]+ V at 200 A/s);
    expect(root.querySelector('.mark')).toBeNull();
  });

  it('shows what a piece needs beside it, and takes the mark off when it is done', async () => {
    const finished: string[][] = [];
    const { root, settle } = await show({
      vans: () => of([van([mark])]),
      finishMark: (id, by) => {
        finished.push([id, by]);
        return of([van([])]);
      },
    });
    const row = root.querySelector('.mark')!.closest('li')!;
    expect(row.textContent).toContain('Lithium pack');
    row.querySelector<HTMLButtonElement>('.mark button')!.click();
    await settle();
    expect(finished.map(([id]) => id)).toEqual(['m1']);
    expect(root.querySelector('.mark')).toBeNull();
  });

  it('says so when the server does not answer', async () => {
    const { root } = await show({ vans: () => throwError(() => new HttpErrorResponse({ status: 0 })) });
    expect(root.querySelector('[role=alert]')!.textContent).toContain('does not answer');
  });
});
