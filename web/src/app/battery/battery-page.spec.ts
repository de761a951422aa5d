import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { BatteryRecord, Van } from '@voltrek/contracts';
import { provideState, provideStore, Store } from '@ngrx/store';
import { of, throwError } from 'rxjs';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { kitCopy } from '../shared/data/kit';
import { sessionFeature } from '../shared/data/session';
import { BatteryPage } from './battery-page';

const record = (state: string, more: object = {}): BatteryRecord =>
  ({
    battery: {
      ...{ id: 'b1', code: 'ABC123', state, vehicleId: null, vanId: null, dateMark: null, place: null },
      rating: { chemistry: 'agm', capacityAh: 70, ccaAmps: 760, ccaStandard: 'EN' },
      since: '2026-01-02T00:00:00.000Z',
    },
    ...{ vehicle: null, needShare: null, coldC: null, entries: [] },
    moves: [
      { kind: 'to-van', at: '2026-01-02T00:00:00.000Z', by: 'a', vanId: 'v1', vehicle: null, note: '' },
    ],
    ...more,
  }) as unknown as BatteryRecord;

describe('the page of a battery', () => {
  async function show(api: object) {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(kitCopy),
        provideState(crewCopy),
        provideState(sessionFeature),
        { provide: Api, useValue: api },
      ],
    });
    const store = TestBed.inject(Store);
    const van = (id: string, retired: boolean): Van =>
      ({ id, name: `Van ${id}`, retired, kit: [], marks: [] }) as unknown as Van;
    store.dispatch(kitCopy.changed([van('v1', false), van('v2', false), van('v3', true)]));
    store.dispatch(crewCopy.changed([{ id: 'a', name: 'Wendel', role: 'technician', retired: false }]));
    const fixture = TestBed.createComponent(BatteryPage);
    fixture.componentRef.setInput('batteryId', 'ABC123');
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const names = (): string[] => [...root.querySelectorAll('.acts button')].map((b) => b.textContent.trim());
    const tap = async (at: number): Promise<void> => {
      root.querySelectorAll<HTMLButtonElement>('.acts button')[at]!.click();
      await fixture.whenStable();
    };
    return { root, names, tap };
  }

  it('offers the vans of the road but the one it is on, and tells who moved it', async () => {
    const { root, names } = await show({
      battery: () => of(record('on-van', { battery: { ...record('on-van').battery, vanId: 'v1' } })),
    });
    expect(names().join()).toContain('Van v2');
    expect(names().join()).not.toContain('Van v1');
    expect(names().join()).not.toContain('Van v3');
    expect(root.querySelector('[aria-labelledby=moves] li')!.textContent).toContain('Wendel');
  });

  it('shows where it is after a move, and offers nothing for one that was scrapped', async () => {
    const moved: object[] = [];
    const { names, tap } = await show({
      battery: () => of(record('depot')),
      moveBattery: (id: string, move: object) => {
        moved.push({ id, ...move });
        return of(record('scrapped'));
      },
    });
    await tap(names().length - 1);
    expect(moved).toEqual([
      { id: 'b1', kind: 'scrapped', by: 'a', vehicleId: null, place: null, vanId: null, note: '' },
    ]);
    expect(names()).toEqual([]);
  });

  it('keeps what it shows and says why when a move is refused', async () => {
    const { root, names, tap } = await show({
      battery: () => of(record('depot')),
      moveBattery: () =>
        throwError(
          () => new HttpErrorResponse({ status: 409, error: { status: 409, detail: 'It is fitted.' } }),
        ),
    });
    const before = names();
    await tap(0);
    expect(root.querySelector('[role=alert]')!.textContent).toBe('It is fitted.');
    expect(names()).toEqual(before);
  });

  it('says that there is none of that name, and nothing else', async () => {
    const { root } = await show({
      battery: () =>
        throwError(
          () => new HttpErrorResponse({ status: 404, error: { status: 404, detail: 'No such battery.' } }),
        ),
    });
    expect(root.querySelector('[role=alert]')!.textContent).toBe('No such battery.');
    expect(root.querySelector('h1')).toBeNull();
    expect(root.querySelector('[role=status]')).toBeNull();
  });
});
