import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import type { VehicleEntry, VehicleSummary } from '@voltrek/contracts';
import { of, Subject, throwError } from 'rxjs';
import { Api } from '../shared/data/api';
import { VehiclesPage } from './vehicles-page';

const vehicle = (id: string): VehicleSummary =>
  ({
    ...{ id, plate: `QX ${id}`, fleetNumber: null, serialNumber: null, modelName: 'Test Car', notes: 'n' },
  }) as unknown as VehicleSummary;

describe('the page of vehicles', () => {
  async function show(api: object, entry: VehicleEntry | null = null) {
    const open = () => ({ result: entry ? Promise.resolve(entry) : Promise.reject(new Error('closed')) });
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        { provide: Api, useValue: api },
        { provide: NgbModal, useValue: { open } },
      ],
    });
    const fixture = TestBed.createComponent(VehiclesPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const type = async (text: string): Promise<void> => {
      const field = root.querySelector('input')!;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      await new Promise((done) => setTimeout(done));
      TestBed.tick();
    };
    const plates = (): (string | null)[] =>
      [...root.querySelectorAll('li strong')].map((cell) => cell.textContent);
    return { fixture, root, type, plates };
  }

  it('lists what is found, each with a link to its page', async () => {
    const { root, plates } = await show({ vehicles: () => of([vehicle('1'), vehicle('2')]) });
    expect(plates()).toEqual(['QX 1', 'QX 2']);
    expect(root.querySelector('li a')!.getAttribute('href')).toBe('/vehicle/1');
  });

  it('shows the answer to the last that was typed, whatever comes late', async () => {
    const answers = new Map<string, Subject<VehicleSummary[]>>();
    const vehicles = (typed: string): Subject<VehicleSummary[]> => {
      const answer = new Subject<VehicleSummary[]>();
      answers.set(typed, answer);
      return answer;
    };
    const shown = show({ vehicles });
    await new Promise((done) => setTimeout(done));
    answers.get('')!.next([]);
    answers.get('')!.complete();
    const { type, plates, fixture } = await shown;
    await type('q');
    await type('qx');
    expect(answers.get('q')!.observed).toBeFalse();
    answers.get('qx')!.next([vehicle('9')]);
    answers.get('qx')!.complete();
    await fixture.whenStable();
    expect(plates()).toEqual(['QX 9']);
  });

  it('opens the page of a vehicle that was put in', async () => {
    const { root, fixture } = await show({ vehicles: () => of([]), addVehicle: () => of({ id: 'new' }) }, {
      plate: 'QX 5',
    } as unknown as VehicleEntry);
    const go = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    root.querySelector('button')!.click();
    await fixture.whenStable();
    await new Promise((done) => setTimeout(done));
    expect(go).toHaveBeenCalledWith(['/vehicle', 'new']);
  });

  it('says why a vehicle could not be put in, and keeps the list', async () => {
    const { root, fixture, plates } = await show(
      {
        vehicles: () => of([vehicle('1')]),
        addVehicle: () => throwError(() => new HttpErrorResponse({ status: 0 })),
      },
      { plate: 'QX 5' } as unknown as VehicleEntry,
    );
    root.querySelector('button')!.click();
    await new Promise((done) => setTimeout(done));
    await fixture.whenStable();
    expect(root.querySelector('[role=alert]')!.textContent).toBe('The server does not answer.');
    expect(plates()).toEqual(['QX 1']);
  });
});
