import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { BoardCall, NewCallChange, Van } from '@voltrek/contracts';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { provideState, provideStore, Store } from '@ngrx/store';
import { of } from 'rxjs';
import { Api } from '../shared/data/api';
import { boardCopy } from '../shared/data/board';
import { kitCopy } from '../shared/data/kit';
import { crewCopy } from '../shared/data/crew';
import { SessionActions, sessionFeature } from '../shared/data/session';
import { CallDialog } from './call-dialog';

const CALL = {
  id: 'c1',
  number: 7,
  title: 'Test car',
  placeName: 'Test yard',
  said: '',
  state: 'waiting',
  vehicleId: 'v1',
  vehicle: { plate: 'QX 0001', fleetNumber: null, serialNumber: null },
  vanId: null,
  technicianId: null,
  promisedAt: null,
  caller: null,
  job: null,
} as unknown as BoardCall;

describe('the dialog of a call', () => {
  async function show(call: Partial<BoardCall>) {
    const sent: [string, NewCallChange][] = [];
    const modal = jasmine.createSpyObj<NgbActiveModal>('modal', ['close', 'dismiss']);
    const api = {
      callChanges: () =>
        of([
          {
            kind: 'given-back',
            at: '2027-01-15T02:10:00.000Z',
            by: 'b',
            vanId: null,
            technicianId: null,
            reason: 'flat tyre',
          },
        ]),
      changeCall: (id: string, change: NewCallChange) => {
        sent.push([id, change]);
        return of([]);
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(kitCopy),
        provideState(sessionFeature),
        provideState(crewCopy),
        provideState(boardCopy),
        { provide: NgbActiveModal, useValue: modal },
        { provide: Api, useValue: api },
      ],
    });
    const store = TestBed.inject(Store);
    const person = (id: string, name: string, retired: boolean) => ({
      id,
      name,
      role: 'technician',
      retired,
    });
    store.dispatch(
      crewCopy.changed([
        person('a', 'First', false),
        person('b', 'Second', false),
        person('c', 'Gone', true),
      ] as never),
    );
    store.dispatch(SessionActions.crewChosen({ crewId: 'a' }));
    const van = (id: string, retired: boolean): Van =>
      ({ id, name: `Van ${id}`, retired, kit: [], marks: [] }) as unknown as Van;
    store.dispatch(kitCopy.changed([van('1', false), van('2', false), van('3', true)]));
    const fixture = TestBed.createComponent(CallDialog);
    fixture.componentInstance.open({ ...CALL, ...call }, '1');
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const button = (name: string): HTMLButtonElement | undefined =>
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name);
    const why = async (text: string): Promise<void> => {
      const input = root.querySelector<HTMLInputElement>('input.field')!;
      input.value = text;
      input.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    return { root, button, why, sent, modal, settle: () => fixture.whenStable() };
  }

  it('takes a call with the van and the technician that are at work', async () => {
    const { root, button, sent, modal } = await show({});
    const offered = [...root.querySelectorAll('option')].map((o) => o.textContent.trim());
    expect(offered).toEqual(['Van 1', 'Van 2', 'First', 'Second']);
    button('Take it')!.click();
    expect(sent).toEqual([['c1', { kind: 'taken', by: 'a', vanId: '1', technicianId: 'a', reason: '' }]]);
    expect(modal.close).toHaveBeenCalledTimes(1);
  });

  it('tells what became of it, and why', async () => {
    const { root } = await show({});
    expect(root.querySelector('ul.ruled')!.textContent).toMatch(/flat tyre/);
    expect(root.textContent).toContain('nobody yet');
  });

  it('passes on and gives back only with a reason, and calls off nothing that is being worked on', async () => {
    const { button, why, sent } = await show({
      state: 'taken',
      vanId: '2',
      technicianId: 'b',
    } as Partial<BoardCall>);
    expect(button('Take it')).toBeUndefined();
    expect(button('Give it back')!.disabled).toBeTrue();
    await why('  x ');
    expect(button('Give it back')!.disabled).withContext('one letter is no reason').toBeTrue();
    await why('tyre burst');
    button('Give it back')!.click();
    expect(sent[0]![1]).toEqual({
      kind: 'given-back',
      by: 'a',
      vanId: null,
      technicianId: null,
      reason: 'tyre burst',
    });
    TestBed.resetTestingModule();
    const worked = await show({
      state: 'taken',
      job: { id: 'j', stage: 'measure' },
    } as unknown as Partial<BoardCall>);
    expect(worked.button('Called off')).toBeUndefined();
    expect(worked.button('Give it back')).toBeUndefined();
    expect(worked.button('Pass it on')).toBeDefined();
  });

  it('lets a call that was called off wait again', async () => {
    const { root, button, sent } = await show({ state: 'called-off' } as Partial<BoardCall>);
    expect(root.querySelector('select')).toBeNull();
    button('It waits again')!.click();
    expect(sent[0]![1].kind).toBe('reopened');
  });
});
