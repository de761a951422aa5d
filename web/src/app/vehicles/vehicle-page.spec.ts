import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { HttpErrorResponse } from '@angular/common/http';
import { provideRouter } from '@angular/router';
import type { VehicleRecord } from '@voltrek/contracts';
import { provideState, provideStore, Store } from '@ngrx/store';
import { of, throwError } from 'rxjs';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { SessionActions, sessionFeature } from '../shared/data/session';
import { VehiclePage } from './vehicle-page';

const RATING = { chemistry: 'agm', capacityAh: 70, ccaAmps: 760, ccaStandard: 'EN' };
const RECORD = {
  vehicle: {
    id: 'v1',
    plate: 'QX 0001',
    fleetNumber: 'F 12',
    serialNumber: null,
    modelName: 'Test Truck',
    notes: 'Isolator under the step',
    revision: 3,
  },
  owner: { id: 'p1', name: 'An owner', phone: '555 02', noLetters: false, erasedAt: null },
  batteries: [
    {
      id: 'b1',
      code: 'ABC123',
      place: 0,
      rating: RATING,
      dateMark: '24/08',
      since: '2026-01-02T00:00:00.000Z',
    },
    { id: 'b2', code: 'ABC124', place: 1, rating: RATING, dateMark: null, since: '2026-01-02T00:00:00.000Z' },
  ],
  visits: [],
  followUps: [{ kind: 'recheck', dueOn: '2027-01-20' }],
} as unknown as VehicleRecord;

describe('the page of a vehicle', () => {
  async function show(records: (VehicleRecord | HttpErrorResponse)[], erased: string[][] = []) {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(sessionFeature),
        provideState(crewCopy),
        {
          provide: Api,
          useValue: {
            vehicle: () => {
              const next = records.shift()!;
              return next instanceof HttpErrorResponse ? throwError(() => next) : of(next);
            },
            erasePerson: (...given: string[]) => {
              erased.push(given);
              return of(undefined);
            },
          },
        },
      ],
    });
    TestBed.inject(Store).dispatch(SessionActions.crewChosen({ crewId: 'a' }));
    const fixture = TestBed.createComponent(VehiclePage);
    fixture.componentRef.setInput('vehicleId', 'v1');
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const tap = async (name: string): Promise<void> => {
      [...root.querySelectorAll('button')].find((b) => b.textContent.includes(name))!.click();
      await fixture.whenStable();
    };
    return { root, tap };
  }

  it('tells whose it is, which battery sits where, and what is promised', async () => {
    const { root } = await show([RECORD]);
    expect(root.querySelector('h1')!.textContent).toContain('QX 0001');
    const batteries = [...root.querySelectorAll('dd li')].map((li) =>
      li.textContent.replace(/\s+/g, ' ').trim(),
    );
    expect(batteries[0]).toMatch(/Battery 1, ABC123.*marked 24\/08/);
    expect(batteries[1]).toMatch(/Battery 2, ABC124/);
    expect(batteries[1]).not.toContain('marked');
    expect(root.querySelector('.due')!.textContent).toContain('20 Jan 2027');
    expect(root.textContent).toContain('No visits yet.');
  });

  it('forgets a person on the second tap only, and shows that they are forgotten', async () => {
    const erased: string[][] = [];
    const after = {
      ...RECORD,
      vehicle: { ...RECORD.vehicle, plate: null },
      owner: { id: 'p1', name: null, phone: null, erasedAt: '2027-01-15T00:00:00.000Z' },
    } as unknown as VehicleRecord;
    const { root, tap } = await show([RECORD, after], erased);
    await tap('Forget them');
    expect(erased).toEqual([]);
    await tap('for good');
    expect(erased).toEqual([['p1', 'a']]);
    expect(root.textContent).not.toContain('An owner');
    expect(root.textContent).toContain('forgotten 15 Jan 2027');
    expect(root.querySelector('a[download]')).toBeNull();
  });

  it('says so when there is none', async () => {
    const { root } = await show([
      new HttpErrorResponse({ status: 404, error: { status: 409, detail: 'There is no vehicle v1.' } }),
    ]);
    expect(root.querySelector('[role=alert]')!.textContent).toContain('no vehicle v1');
    expect(root.querySelector('[role=status]')).toBeNull();
  });
});
