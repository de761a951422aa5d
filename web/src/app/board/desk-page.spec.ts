import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { provideState, provideStore, Store } from '@ngrx/store';
import type { BoardCall, CrewMember, NewCallChange, Van } from '@voltrek/contracts';
import { EMPTY, of, throwError } from 'rxjs';
import { Api } from '../shared/data/api';
import { boardCopy } from '../shared/data/board';
import { crewCopy } from '../shared/data/crew';
import { kitCopy } from '../shared/data/kit';
import { SessionActions, sessionFeature } from '../shared/data/session';
import { DeskPage } from './desk-page';

/** Half a minute more, so that a slow run reads the same minute. */
const ago = (minutes: number): string => new Date(Date.now() - (minutes + 0.5) * 60_000).toISOString();

const call = (number: number, parts: Partial<BoardCall>): BoardCall =>
  ({
    ...{ id: `call-${number}`, number, title: `Call ${number}`, placeName: `Place ${number}`, said: '' },
    ...{ receivedAt: ago(30), ambientC: 0, urgent: false, state: 'waiting', vanId: null, technicianId: null },
    ...{ promisedAt: null, job: null, caller: null, modelId: 'm', vehicleId: 'v' },
    vehicle: { plate: null, fleetNumber: null, serialNumber: null },
    ...parts,
  }) as unknown as BoardCall;
const van = (id: string): Van => ({ id, name: `Van ${id}`, retired: false, kit: [], marks: [] });
const CREW: readonly CrewMember[] = (
  [
    ['desk', 'Dana', 'desk'],
    ['tech', 'Tilo', 'technician'],
    ['new', 'Nora', 'apprentice'],
  ] as const
).map(([id, name, role]) => ({ id, name, role, retired: false }));

describe('the desk', () => {
  async function show(calls: readonly BoardCall[], refuses = false) {
    const sent: (readonly [string, NewCallChange])[] = [];
    const api: Partial<Api> = {
      outset: () => EMPTY,
      changeCall: (id, change) => {
        sent.push([id, change]);
        return refuses ? throwError(() => new HttpErrorResponse({ status: 500 })) : of([...calls]);
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(boardCopy),
        provideState(crewCopy),
        provideState(kitCopy),
        provideState(sessionFeature),
        { provide: Api, useValue: api },
      ],
    });
    const store = TestBed.inject(Store);
    store.dispatch(boardCopy.changed(calls));
    store.dispatch(crewCopy.changed(CREW));
    store.dispatch(kitCopy.changed([van('1'), van('2')]));
    store.dispatch(SessionActions.crewChosen({ crewId: 'desk' }));
    const fixture = TestBed.createComponent(DeskPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const rows = (): HTMLElement[] => [...root.querySelectorAll<HTMLElement>('.vans li')];
    const set = async (field: HTMLInputElement | HTMLSelectElement, value: string): Promise<void> => {
      field.value = value;
      field.dispatchEvent(new Event(field instanceof HTMLSelectElement ? 'change' : 'input'));
      await fixture.whenStable();
    };
    const key = (row: HTMLElement): HTMLButtonElement => row.querySelector('button')!;
    return { fixture, root, rows, set, key, sent };
  }

  it('puts overdue calls first, then those that wait', async () => {
    const { root } = await show([
      call(1, { state: 'taken', vanId: '1', technicianId: 'tech' }),
      call(2, {}),
      call(3, { promisedAt: ago(12) }),
      call(4, { state: 'done' }),
    ]);
    const numbers = [...root.querySelectorAll('.call .number')].map((n) => n.textContent);
    expect(numbers).toEqual(['3', '2', '1']);
    expect(root.querySelector('.call')!.textContent).toContain('overdue 12 min');
  });

  it('gives a call to a van and somebody who works alone, with the time that it promises, in the name of the desk', async () => {
    // The call names a van and a person already, and nobody has taken it.
    const { rows, set, key, sent, root } = await show([call(2, { vanId: '2', technicianId: 'tech' })]);
    const row = rows()[1]!;
    expect(key(row).disabled).toBeTrue();
    const people = [...row.querySelectorAll('option')].map((o) => o.textContent.trim());
    expect(people).toEqual(['choose', 'Tilo']);
    await set(row.querySelector('input')!, '25');
    await set(row.querySelector('select')!, 'tech');
    key(row).click();
    const [[id, { promisedAt, ...change }]] = sent as [[string, NewCallChange]];
    expect(id).toBe('call-2');
    expect(change).toEqual({ kind: 'taken', by: 'desk', vanId: '2', technicianId: 'tech', reason: '' });
    expect(Math.abs(Date.parse(promisedAt!) - (Date.now() + 25 * 60_000))).toBeLessThan(60_000);
    expect(root.querySelector('.problem')).toBeNull();
  });

  it('tells which van is on which call and where the other was last, and passes on only with a reason', async () => {
    const closed = { closedAt: ago(5), openedAt: ago(40) } as BoardCall['job'];
    const { rows, set, key, sent, root } = await show([
      call(1, { state: 'taken', vanId: '1', technicianId: 'tech' }),
      call(9, { state: 'done', vanId: '2', technicianId: 'tech', job: closed }),
    ]);
    expect(rows()[0]!.textContent).toContain('on call 1, Place 1');
    expect(rows()[1]!.textContent).toContain('free since');
    expect(rows()[1]!.textContent).toContain('Last at Place 9');
    // Its last technician is proposed; without a reason the call is not passed on.
    expect(rows()[1]!.querySelector('select')!.value).toBe('tech');
    expect(key(rows()[1]!).disabled).toBeTrue();
    await set(root.querySelector<HTMLInputElement>('.vans > label input')!, 'nearer');
    key(rows()[1]!).click();
    expect(sent[0]![1]).toEqual({
      ...{ kind: 'passed-on', by: 'desk', vanId: '2', technicianId: 'tech', reason: 'nearer' },
    });
  });

  it('keeps what was chosen while the Board changes, and begins anew with another call', async () => {
    const calls = [call(2, {}), call(3, {})];
    const { rows, set, root, fixture } = await show(calls);
    await set(rows()[0]!.querySelector('select')!, 'tech');
    await set(rows()[0]!.querySelector('input')!, '15');
    TestBed.inject(Store).dispatch(boardCopy.changed([...calls, call(5, {})]));
    await fixture.whenStable();
    expect(root.querySelectorAll('.call').length).toBe(3);
    const typed = () => [rows()[0]!.querySelector('select')!.value, rows()[0]!.querySelector('input')!.value];
    expect(typed()).toEqual(['tech', '15']);
    root.querySelectorAll<HTMLElement>('.call')[1]!.click();
    await fixture.whenStable();
    expect(typed()).toEqual(['', '']);
  });

  it('says why a call could not be given, and keeps the choice', async () => {
    const { rows, set, key, root, fixture } = await show([call(2, {})], true);
    await set(rows()[0]!.querySelector('select')!, 'tech');
    key(rows()[0]!).click();
    await fixture.whenStable();
    expect(root.querySelector('.problem')).not.toBeNull();
    expect(rows()[0]!.querySelector('select')!.value).toBe('tech');
  });
});
