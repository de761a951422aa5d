import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { HttpErrorResponse } from '@angular/common/http';
import { Router } from '@angular/router';
import type { SetUp } from '@voltrek/contracts';
import { provideStore } from '@ngrx/store';
import { type Observable, of, throwError } from 'rxjs';
import { Api } from '../shared/data/api';
import { SetUpPage } from './set-up-page';

const USUAL = {
  'heavy-leads': { kind: 'lead-set', name: 'Heavy set' },
  'lithium-pack': { kind: 'lithium-pack', name: 'Pocket pack' },
};

describe('the set-up of a house', () => {
  async function show(isSetUp: boolean, setUp: (given: SetUp) => Observable<unknown> = () => of({})) {
    const router = jasmine.createSpyObj<Router>('router', ['navigate']);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        { provide: Router, useValue: router },
        { provide: Api, useValue: { house: () => of({ isSetUp, usualKit: USUAL }), setUp } },
      ],
    });
    const fixture = TestBed.createComponent(SetUpPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const tap = async (name: string, at = 0): Promise<void> => {
      [...root.querySelectorAll('button')].filter((b) => b.textContent.includes(name))[at]!.click();
      await fixture.whenStable();
    };
    const type = async (at: number, text: string): Promise<void> => {
      const input = root.querySelectorAll('input')[at]!;
      input.value = text;
      input.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    const begin = (): HTMLButtonElement => root.querySelector('button[type=submit]')!;
    return { root, router, tap, type, begin };
  }

  it('waits for somebody who works here', async () => {
    const { begin, type } = await show(false);
    expect(begin().disabled).toBeTrue();
    await type(0, '   ');
    expect(begin().disabled).toBeTrue();
    await type(0, 'First');
    expect(begin().disabled).toBeFalse();
  });

  it('sends the people with names, the vans with what was ticked, and the atlas that was chosen', async () => {
    const sent: SetUp[] = [];
    const { tap, type, begin, router } = await show(false, (given) => {
      sent.push(given);
      return of({});
    });
    await type(0, ' First ');
    await tap('One more');
    await type(1, 'Second');
    await tap('One more');
    await tap('Pocket pack');
    await tap('One more van');
    await tap('Pocket pack', 1);
    await tap('Empty, to be filled');
    begin().click();
    expect(sent).toEqual([
      {
        crew: [
          { name: 'First', role: 'crew-lead' },
          { name: 'Second', role: 'technician' },
        ],
        vans: [
          { name: 'Van 1', kit: ['heavy-leads', 'meter'] },
          { name: 'Van 2', kit: ['lithium-pack'] },
        ],
        atlas: 'empty',
      },
    ]);
    expect(router.navigate).toHaveBeenCalledWith(['/board']);
  });

  it('says why it was refused, and keeps what was typed', async () => {
    const refused = new HttpErrorResponse({
      status: 409,
      error: { status: 409, detail: 'This house is set up already.' },
    });
    const { root, type, begin, router, tap } = await show(false, () => throwError(() => refused));
    await type(0, 'First');
    begin().click();
    await tap('One more');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('set up already');
    expect(root.querySelector('input')!.value).toBe('First');
    expect(router.navigate).not.toHaveBeenCalled();
  });

  it('leads to the board where a house stands already', async () => {
    const { router } = await show(true);
    expect(router.navigate).toHaveBeenCalledWith(['/board']);
  });
});
