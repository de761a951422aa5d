import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { DevicePack, VehicleSummary } from '@voltrek/contracts';
import { templateOf } from '@voltrek/core/template';
import { firstValueFrom, of, throwError } from 'rxjs';
import { CAR, VAN } from '../../../testing/fixtures';
import { Api } from './api';
import { Finder, machinesIn, vehiclesIn } from './finder';
import { House } from './house';

const vehicle = (id: string, plate: string | null, fleetNumber: string | null = null): VehicleSummary => ({
  ...{ id, plate, fleetNumber, serialNumber: null, modelId: 'car', modelName: 'Test Car' },
  ...{ ownerId: null, notes: '', revision: 1 },
});
const PACK: DevicePack = {
  models: [CAR, VAN, templateOf('truck')].map((machine) => ({ machine, confidence: 'maker' })),
  vehicles: [vehicle('v1', 'QX 0007'), vehicle('v2', null, '44')].map((v) => ({
    vehicle: v,
    batteries: [],
    flatCalls: [],
  })),
};
const HELD_AT = new Date('2027-01-15T02:41:00.000Z');

describe('finding with no server', () => {
  it('looks for each word in maker, model, class and place; a class only by its name', () => {
    const ids = (typed: string): string[] => machinesIn(PACK, typed).machines.map((m) => m.id);
    expect(ids('')).toEqual(['car', 'van']);
    expect(ids('TEST front')).toEqual(['car', 'van']);
    expect(ids('test xyz')).toEqual([]);
    expect(ids('lorry')).toEqual([templateOf('truck').id]);
    expect(machinesIn(PACK, '').total).toBe(2);
  });

  it('knows a plate whatever blanks and letters it is typed in, and a fleet number', () => {
    const ids = (typed: string): string[] => vehiclesIn(PACK, typed).map((v) => v.vehicle.id);
    expect(ids('qx00-07')).toEqual(['v1']);
    expect(ids('44')).toEqual(['v2']);
    expect(ids('  ')).toEqual([]);
    expect(ids('zz 1')).toEqual([]);
  });

  it('fetches its copy once in a while, and at once where the last one is outdated', async () => {
    const devicePack = jasmine.createSpy('devicePack').and.returnValue(of({ body: PACK, at: HELD_AT }));
    const api = { devicePack, followUps: () => of([]), looseBatteries: () => of([]) };
    const house = { rules: () => Promise.resolve(), vans: () => Promise.resolve() };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: Api, useValue: api },
        { provide: House, useValue: house },
      ],
    });
    const finder = TestBed.inject(Finder);
    await finder.prepare();
    await finder.prepare();
    expect(devicePack).toHaveBeenCalledTimes(1);
    finder.outdate();
    await finder.prepare();
    expect(devicePack).toHaveBeenCalledTimes(2);
  });

  it('asks the server first, and tells how old the copy is that answers in its place', async () => {
    const away = throwError(() => new HttpErrorResponse({ status: 504 }));
    const api = {
      machines: jasmine.createSpy('machines').and.returnValue(away),
      entry: () => away,
      devicePack: () => of({ body: PACK, at: HELD_AT }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: Api, useValue: api },
        { provide: House, useValue: {} },
      ],
    });
    const finder = TestBed.inject(Finder);
    expect((await firstValueFrom(finder.machines('van'))).machines.map((m) => m.id)).toEqual(['van']);
    expect(finder.heldAt()).toEqual(HELD_AT);
    expect((await firstValueFrom(finder.entry('van'))).machine).toBe(VAN);
    await expectAsync(firstValueFrom(finder.entry('none'))).toBeRejected();
    api.machines.and.returnValue(of({ machines: [], total: 9 }));
    expect((await firstValueFrom(finder.machines('van'))).total).toBe(9);
    expect(finder.heldAt()).toBeNull();
    // A search that the server refuses is not made elsewhere.
    api.machines.and.returnValue(throwError(() => new HttpErrorResponse({ status: 422 })));
    await expectAsync(firstValueFrom(finder.machines('van'))).toBeRejected();
  });
});
