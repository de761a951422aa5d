import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { BoardCall } from '@voltrek/contracts';
import { provideState, provideStore, Store } from '@ngrx/store';
import { OpenJob } from '../shared/job/open-job';
import { boardCopy } from '../shared/data/board';
import { kitCopy } from '../shared/data/kit';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { deviceFeature } from '../shared/sync/device-state';
import { BoardPage } from './board-page';

const AWAY = new HttpErrorResponse({ status: 0 });

function callOf(number: number, more: Partial<BoardCall> = {}): BoardCall {
  return {
    ...{ id: `call-${number}`, number, title: `Car ${number}`, placeName: 'Yard', said: 'It clicks.' },
    ...{
      modelId: 'car',
      vehicleId: 'v1',
      vehicle: { plate: null, fleetNumber: null, serialNumber: null },
      ambientC: -4,
      urgent: false,
      vanId: null,
    },
    ...{ technicianId: null, state: 'open', receivedAt: new Date().toISOString(), caller: null, job: null },
    promisedAt: null,
    ...more,
  } as unknown as BoardCall;
}

const jobOf = (more: object): BoardCall['job'] =>
  ({ id: 'job-1', state: 'open', stage: 'measure', vansComing: [], chargeUntil: null, ...more }) as never;

describe('the board', () => {
  let fixture: ComponentFixture<BoardPage>;
  let root: HTMLElement;
  let opener: jasmine.SpyObj<OpenJob>;
  let went: unknown[];

  async function show(...calls: BoardCall[]): Promise<void> {
    opener = jasmine.createSpyObj<OpenJob>('opener', ['open']);
    went = [];
    const navigate = (to: unknown): Promise<boolean> => Promise.resolve(went.push(to) > 0);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        ...[boardCopy, kitCopy, crewCopy, sessionFeature, deviceFeature].map((f) => provideState(f as never)),
        { provide: Router, useValue: { navigate } },
        { provide: OpenJob, useValue: opener },
      ],
    });
    fixture = TestBed.createComponent(BoardPage);
    root = fixture.nativeElement as HTMLElement;
    TestBed.inject(Store).dispatch(boardCopy.changed(calls));
    await fixture.whenStable();
  }
  const row = (call: BoardCall): HTMLElement =>
    [...root.querySelectorAll('li')].find((li) => li.textContent.includes(call.title))!;
  const tap = async (within: HTMLElement): Promise<void> => {
    within.querySelector('button')!.click();
    await fixture.whenStable();
  };

  it('says in a row what the call waits for', async () => {
    const urgent = callOf(1, { urgent: true });
    const worked = callOf(2, { job: jobOf({}) });
    const due = callOf(3, { job: jobOf({ chargeUntil: '2020-01-01T00:00:00Z' }) });
    const replaced = callOf(4, { state: 'done', job: jobOf({ state: 'closed', verdict: 'replace-now' }) });
    await show(urgent, worked, due, replaced);
    expect(row(urgent).textContent).toMatch(/urgent, 0 min/);
    expect(row(worked).textContent).toContain('at Measure');
    expect(row(due).textContent).toContain('charge is due: go back');
    expect(row(replaced).textContent).toContain('Replace now');
    expect(root.querySelector('header')!.textContent).toMatch(/1 waiting, 2 under way/);
  });

  it('puts the calls first whose promise has passed, the latest on top, and marks them; a begun call is in time', async () => {
    const promised = (minutes: number) => ({
      promisedAt: new Date(Date.now() + minutes * 60_000).toISOString(),
    });
    const intime = callOf(1, promised(30));
    const late = callOf(2, promised(-5));
    const later = callOf(3, promised(-50));
    const begun = callOf(4, { ...promised(-90), job: jobOf({}) });
    await show(intime, late, later, begun);
    const titles = [...root.querySelectorAll('.what strong')].map(({ textContent }) => textContent);
    expect(titles).toEqual(['Car 3', 'Car 2', 'Car 1', 'Car 4']);
    expect(row(later).querySelector('.tone-stop')!.textContent).toBe('overdue 50 min');
    expect(row(intime).textContent).toMatch(/promised \d\d:\d\d/);
    expect(row(intime).querySelector('.tone-stop')).toBeNull();
    expect(row(begun).textContent).not.toContain('promised');
  });

  it('shows those of one kind', async () => {
    const [waiting, worked] = [callOf(1), callOf(2, { job: jobOf({}) })];
    await show(waiting, worked);
    [...root.querySelectorAll<HTMLElement>('[role=radio]')]
      .find((key) => key.textContent.trim() === 'under way')!
      .click();
    await fixture.whenStable();
    expect(row(waiting)).toBeUndefined();
    expect(row(worked)).toBeDefined();
  });

  it('opens the job of a call, once for two taps', async () => {
    const [waiting, worked] = [callOf(1), callOf(2, { job: jobOf({}) })];
    await show(waiting, worked);
    await tap(row(worked));
    expect(went).toEqual([['/job', 'job-1']]);
    opener.open.and.resolveTo('job-2');
    const button = row(waiting).querySelector('button')!;
    button.click();
    button.click();
    await fixture.whenStable();
    expect(opener.open).toHaveBeenCalledTimes(1);
    expect(went.at(-1)).toEqual(['/job', 'job-2']);
  });

  it('says in the row of the tap why its job did not open, until the next tap', async () => {
    const [first, second] = [callOf(1), callOf(2)];
    await show(first, second);
    opener.open.and.rejectWith(AWAY);
    await tap(row(second));
    expect(row(second).querySelector('[role=alert]')!.textContent).toBe('The server does not answer.');
    expect(row(first).querySelector('[role=alert]')).toBeNull();
    opener.open.and.returnValue(new Promise(() => undefined));
    await tap(row(second));
    expect(row(second).querySelector('[role=alert]')).toBeNull();
    expect(row(second).textContent).toContain('opening');
  });
});
