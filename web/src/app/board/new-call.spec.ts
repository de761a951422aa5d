import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { HttpErrorResponse } from '@angular/common/http';
import type { NewCall as NewCallEntry, VehicleSummary } from '@voltrek/contracts';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { type Observable, of, Subject, throwError } from 'rxjs';
import { provideState, provideStore, Store } from '@ngrx/store';
import { Api } from '../shared/data/api';
import { deviceFeature } from '../shared/sync/device-state';
import { NewCall } from './new-call';

const KNOWN = {
  id: 'v7',
  plate: 'QX 0007',
  fleetNumber: null,
  serialNumber: null,
  modelId: 'car',
  modelName: 'Test Car',
} as unknown as VehicleSummary;

describe('a new call', () => {
  async function show(api: Partial<Record<'vehicles' | 'openCall', (given: never) => Observable<unknown>>>) {
    const modal = jasmine.createSpyObj<NgbActiveModal>('modal', ['close', 'dismiss']);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(deviceFeature),
        { provide: NgbActiveModal, useValue: modal },
        { provide: Api, useValue: { models: () => of({ machines: [], total: 0 }), ...api } },
      ],
    });
    const fixture = TestBed.createComponent(NewCall);
    const root = fixture.nativeElement as HTMLElement;
    await fixture.whenStable();
    const field = (label: string): HTMLInputElement =>
      [...root.querySelectorAll('label')]
        .find((l) => l.textContent.trim().startsWith(label))!
        .querySelector('input')!;
    const type = async (label: string, text: string): Promise<void> => {
      field(label).value = text;
      field(label).dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    const tap = async (name: string): Promise<void> => {
      [...root.querySelectorAll('button')].find((b) => b.textContent.includes(name))!.click();
      await fixture.whenStable();
    };
    const send = (): HTMLButtonElement => root.querySelector('button[type=submit]')!;
    return { root, modal, type, tap, send };
  }

  it('offers the vehicles that a plate may mean, and names the one that was meant', async () => {
    const sent: NewCallEntry[] = [];
    const { root, modal, type, tap, send } = await show({
      vehicles: () => of([KNOWN]),
      openCall: (call: NewCallEntry) => {
        sent.push(call);
        return of({});
      },
    });
    await type('Plate', 'qx');
    expect(root.querySelector('[role=radio]')).withContext('two letters are no plate').toBeNull();
    await type('Plate', 'qx0007');
    expect(root.querySelector('[role=radio]')!.textContent).toMatch(/QX 0007.*Test Car/s);
    await tap('QX 0007');
    expect(send().disabled).withContext('a place may be told later').toBeFalse();
    await type('Place', ' North yard ');
    await type('Who called', 'A caller');
    await type('Phone', '555 01');
    await type('Promised', '40');
    await tap('Urgent');
    const before = Date.now();
    send().click();
    await new Promise<void>((closed) => modal.close.and.callFake(() => closed()));
    expect(modal.close).toHaveBeenCalledTimes(1);
    const [call] = sent as [NewCallEntry];
    expect(call).toEqual(
      jasmine.objectContaining({
        vehicleId: 'v7',
        title: 'Test Car',
        placeName: 'North yard',
        ambientC: 0,
        urgent: true,
        caller: { name: 'A caller', phone: '555 01' },
      }),
    );
    expect(call.plate).withContext('the vehicle stands for its plate').toBeUndefined();
    expect(Date.parse(call.promisedAt!) - before).toBeGreaterThanOrEqual(40 * 60_000 - 1_000);
  });

  it('needs no more than the plate of a known vehicle, whose model follows from it', async () => {
    const sent: NewCallEntry[] = [];
    const openCall = (call: NewCallEntry) => of(void sent.push(call));
    const { modal, type, send, root } = await show({ vehicles: () => of([KNOWN]), openCall });
    expect(send().disabled).toBeTrue();
    await type('Plate', 'qx-000');
    expect(send().disabled).withContext('a part of it may be another').toBeTrue();
    await type('Plate', 'qx-0007');
    expect(root.querySelector('[role=radio]')!.getAttribute('aria-checked')).toBe('true');
    expect(send().disabled).toBeFalse();
    send().click();
    await new Promise<void>((closed) => modal.close.and.callFake(() => closed()));
    expect(sent).toEqual([
      jasmine.objectContaining({
        vehicleId: 'v7',
        title: 'Test Car',
        placeName: '',
      }) as unknown as NewCallEntry,
    ]);
  });

  it('is one call however often it is sent while the server takes its time, and may be sent again after a refusal', async () => {
    let answer = new Subject<unknown>();
    const openCall = jasmine.createSpy('openCall').and.callFake(() => answer);
    const { modal, type, tap, send } = await show({ vehicles: () => of([KNOWN]), openCall });
    await type('Plate', 'QX 0007');
    await tap('QX 0007');
    await type('Place', 'Yard');
    const form = send().form!;
    for (let i = 0; i < 3; i++) form.dispatchEvent(new Event('submit'));
    expect(openCall).toHaveBeenCalledTimes(1);
    answer.error(new HttpErrorResponse({ status: 400, error: { status: 400, detail: 'No.' } }));
    await new Promise((done) => setTimeout(done));
    answer = new Subject();
    form.dispatchEvent(new Event('submit'));
    expect(openCall).toHaveBeenCalledTimes(2);
    answer.next({});
    answer.complete();
    await new Promise<void>((closed) => modal.close.and.callFake(() => closed()));
  });

  it('forgets the vehicle when its plate is changed, and an answer to an older plate', async () => {
    const first = new Subject<VehicleSummary[]>();
    const answers: Observable<VehicleSummary[]>[] = [first, of([])];
    const { root, type } = await show({ vehicles: () => answers.shift()! });
    await type('Plate', 'QX 0007');
    await type('Plate', 'QX 0008');
    first.next([KNOWN]);
    await Promise.resolve();
    expect(root.querySelector('[role=radio]')).toBeNull();
  });

  it('is kept on this device where no server answers, to a vehicle that is known', async () => {
    const { modal, type, tap, send } = await show({
      vehicles: () => of([KNOWN]),
      openCall: () => throwError(() => new HttpErrorResponse({ status: 0 })),
    });
    await type('Plate', 'qx0007');
    await tap('QX 0007');
    await type('Place', 'North yard');
    send().click();
    await new Promise<void>((closed) => modal.close.and.callFake(() => closed()));
    const [kept] = TestBed.inject(Store).selectSignal(deviceFeature.selectErrands)();
    expect(kept).toEqual(
      jasmine.objectContaining({
        kind: 'call',
        vehicleId: 'v7',
        vehicle: { plate: 'QX 0007', fleetNumber: null, serialNumber: null },
        why: null,
      }),
    );
  });

  it('tells an air that nobody can stand in, and sends nothing', async () => {
    const { root, type, tap, send } = await show({ vehicles: () => of([KNOWN]) });
    await type('Plate', 'QX 0007');
    await tap('QX 0007');
    await type('Place', 'Yard');
    await type('Air', '400');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('Air temperature');
    expect(send().disabled).toBeTrue();
  });

  it('asks whose phone it is before it would be lost', async () => {
    const { root, type, tap, send } = await show({ vehicles: () => of([KNOWN]) });
    await type('Plate', 'QX 0007');
    await tap('QX 0007');
    await type('Place', 'Yard');
    expect(send().disabled).toBeFalse();
    await type('Phone', '555 01');
    expect(send().disabled).toBeTrue();
    root.querySelector<HTMLInputElement>('[formControlName=phone]')!.dispatchEvent(new Event('blur'));
    await type('Phone', '555 02');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('whose phone');
    await type('Who called', 'A caller');
    expect(send().disabled).toBeFalse();
  });

  it('stays open with what was typed when the server refuses', async () => {
    const refused = new HttpErrorResponse({
      status: 409,
      error: { status: 409, detail: 'This call stands already.' },
    });
    const { root, modal, type, tap, send } = await show({
      vehicles: () => of([KNOWN]),
      openCall: () => throwError(() => refused),
    });
    await type('Plate', 'QX 0007');
    await tap('QX 0007');
    await type('Place', 'Yard');
    send().click();
    await tap('QX 0007');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('This call stands already.');
    expect(modal.close).not.toHaveBeenCalled();
  });
});
