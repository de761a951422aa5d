import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { provideState, provideStore, Store } from '@ngrx/store';
import { of, Subject, throwError } from 'rxjs';
import { Api } from '../shared/data/api';
import { kitCopy } from '../shared/data/kit';
import { crewCopy } from '../shared/data/crew';
import { SessionActions, sessionFeature } from '../shared/data/session';
import { BatteriesPage } from './batteries-page';

describe('the page of batteries', () => {
  async function show(api: object) {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(kitCopy),
        provideState(sessionFeature),
        provideState(crewCopy),
        { provide: Api, useValue: { looseBatteries: () => of([]), ...api } },
      ],
    });
    TestBed.inject(Store).dispatch(SessionActions.crewChosen({ crewId: 'crew-1' }));
    const fixture = TestBed.createComponent(BatteriesPage);
    const root = fixture.nativeElement as HTMLElement;
    await fixture.whenStable();
    const tap = async (name: string): Promise<void> => {
      [...root.querySelectorAll('button')].find((b) => b.textContent.includes(name))!.click();
      await fixture.whenStable();
    };
    const ask = async (code: string): Promise<string> => {
      const field = root.querySelector<HTMLInputElement>('.find input')!;
      field.value = code;
      field.dispatchEvent(new Event('input'));
      await fixture.whenStable();
      root.querySelector('.find')!.dispatchEvent(new Event('submit'));
      await fixture.whenStable();
      return root.querySelector('[role=alert]')!.textContent;
    };
    return { root, tap, ask, settled: () => fixture.whenStable() };
  }

  it('puts one battery in the record however often it is sent while the server takes its time', async () => {
    const answer = new Subject<never>();
    const addBattery = jasmine.createSpy('addBattery').and.returnValue(answer);
    const { root, tap, settled } = await show({ addBattery });
    await tap('New battery');
    const form = root.querySelector('form.new')!;
    for (const [at, figure] of ['70', '640'].entries()) {
      const field = form.querySelectorAll<HTMLInputElement>('input[inputmode=decimal]')[at]!;
      field.value = figure;
      field.dispatchEvent(new Event('input'));
    }
    await settled();
    for (let i = 0; i < 3; i++) form.dispatchEvent(new Event('submit'));
    expect(addBattery).toHaveBeenCalledTimes(1);
    answer.error(new HttpErrorResponse({ status: 503 }));
    form.dispatchEvent(new Event('submit'));
    expect(addBattery).toHaveBeenCalledTimes(2);
  });

  it('says that none has a code only where the server says so', async () => {
    let status = 404;
    const { ask } = await show({ battery: () => throwError(() => new HttpErrorResponse({ status })) });
    expect(await ask('ZZZZ')).toContain('ZZZZ');
    status = 0;
    expect(await ask('ZZZZ')).toBe('The server does not answer.');
  });
});
