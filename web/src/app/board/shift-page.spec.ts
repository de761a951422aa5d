import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { provideState, provideStore, Store } from '@ngrx/store';
import type { NewShiftEnd, ShiftEnd, ShiftLeft, Van } from '@voltrek/contracts';
import { nameOf } from '@words/figures';
import { of, throwError } from 'rxjs';
import { HttpErrorResponse } from '@angular/common/http';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { kitCopy } from '../shared/data/kit';
import { SessionActions, sessionFeature } from '../shared/data/session';
import { shiftDocument } from './shift-pdf';
import { ShiftPage } from './shift-page';

const LEFT: ShiftLeft = {
  calls: [
    {
      ...{ number: 142, title: 'Bread van', placeName: 'Gate', vanId: null, technicianId: null },
      ...{ promisedAt: null, jobId: null, chargeUntil: null },
    },
    {
      ...{ number: 143, title: 'Piste machine', placeName: 'Slope', vanId: 'van-1', technicianId: 'tech' },
      ...{ promisedAt: null, jobId: 'job-143', chargeUntil: '2026-12-02T05:30:00.000Z' },
    },
  ],
  kit: [{ kitItemId: 'pack', name: 'Lithium pack', vanId: 'van-1', need: 'recharge' }],
  rechecks: [],
};
const GIVEN: ShiftEnd = {
  ...{ id: 'shift-1', givenBy: 'tech', givenAt: '2026-12-02T05:00:00.000Z', note: 'Van 1 pulls left.' },
  ...{ takenBy: null, takenAt: null, left: LEFT },
};
const CREW = [
  { id: 'tech', name: 'Tilo', role: 'technician', retired: false },
  { id: 'lead', name: 'Lea', role: 'crew-lead', retired: false },
] as const;

const NAMES = { person: (id: string) => nameOf(CREW, id), van: () => 'Van 1' };

describe('the end of a shift', () => {
  async function show(shifts: readonly ShiftEnd[], crewId: string, refuses = false) {
    const given: NewShiftEnd[] = [];
    const taken: (readonly [string, string])[] = [];
    const answer = () => (refuses ? throwError(() => new HttpErrorResponse({ status: 500 })) : of(GIVEN));
    const api: Partial<Api> = {
      shiftLeft: () => of(LEFT),
      shifts: () => of([...shifts]),
      giveShift: (shift) => {
        given.push(shift);
        return answer();
      },
      takeShift: (...signed) => {
        taken.push(signed);
        return answer();
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(crewCopy),
        provideState(kitCopy),
        provideState(sessionFeature),
        { provide: Api, useValue: api },
      ],
    });
    const store = TestBed.inject(Store);
    store.dispatch(crewCopy.changed(CREW));
    store.dispatch(kitCopy.changed([{ id: 'van-1', name: 'Van 1' } as Van]));
    store.dispatch(SessionActions.crewChosen({ crewId }));
    const fixture = TestBed.createComponent(ShiftPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const key = (name: string): HTMLButtonElement | undefined =>
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name);
    return { fixture, root, key, given, taken };
  }
  const lines = (root: HTMLElement): string[] =>
    [...root.querySelectorAll('.left li')].map((li) => li.textContent.trim());

  it('tells what is left, part by part, and leads to the jobs', async () => {
    const { root } = await show([], 'tech');
    expect(lines(root)[0]).toBe('142 Bread van, Gate; waits');
    expect(lines(root)[1]).toMatch(/^143 Piste machine, Slope; Van 1, Tilo; on charge until/);
    expect(lines(root).slice(2)).toEqual(['Van 1: Lithium pack, recharge', 'No recheck is due this week.']);
    expect(root.querySelector('.left a')!.getAttribute('href')).toBe('/job/job-143');
  });

  it('is given over with a note, under one id however often it is sent', async () => {
    const { root, key, given, fixture } = await show([], 'tech', true);
    const note = root.querySelector('textarea')!;
    note.value = ' Van 1 pulls left. ';
    note.dispatchEvent(new Event('input'));
    for (let i = 0; i < 2; i++) {
      key('Give the shift over')!.click();
      await fixture.whenStable();
    }
    expect(root.querySelector('.problem')).not.toBeNull();
    expect(given.length).toBe(2);
    expect(given[0]).toEqual({ id: given[1]!.id, by: 'tech', note: 'Van 1 pulls left.' });
  });

  it('is taken over by somebody else alone', async () => {
    const own = await show([GIVEN], 'tech');
    expect(own.root.textContent).toContain('Tilo gave it over');
    expect(own.key('Take it over as Tilo')).toBeUndefined();
    expect(own.key('Give the shift over')).toBeUndefined();
    TestBed.resetTestingModule();
    const { key, taken } = await show([GIVEN], 'lead');
    key('Take it over as Lea')!.click();
    expect(taken).toEqual([['shift-1', 'lead']]);
  });

  it('has the same lines on paper, with both signatures', () => {
    const taken = { ...GIVEN, takenBy: 'lead', takenAt: '2026-12-02T05:10:00.000Z' };
    const paper = JSON.stringify(shiftDocument(taken, NAMES));
    for (const words of [
      '142 Bread van, Gate',
      'Lithium pack, recharge',
      'Tilo gave it over',
      'Lea took it over',
    ])
      expect(paper).toContain(words);
    expect(paper).toContain('Van 1 pulls left.');
  });
});
