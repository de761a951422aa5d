import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { type Action, provideState, provideStore, ScannedActionsSubject, Store } from '@ngrx/store';
import { event } from '../../testing/fixtures';
import type { Errand } from '../shared/model/errand';
import { JobActions } from '../shared/model/job-state';
import { DeviceActions, deviceFeature } from '../shared/sync/device-state';
import { DeviceStore } from '../shared/sync/device-store';
import { Errands } from '../shared/sync/errands';
import { JobSync } from '../shared/sync/job-sync';
import { Readiness } from '../shared/sync/readiness';
import { ReasonPrompt } from '../shared/ui/reason-prompt';
import { WaitingDialog } from './waiting-dialog';

describe('WaitingDialog', () => {
  const tap = event('symptom.recorded', { symptom: 'slow-crank' });
  const errand = { id: 'e1', at: tap.at, kind: 'photo', modelId: 'car', by: 'crew-1', why: null } as Errand;

  async function show(actions: readonly Action[], reason: string | null = null) {
    const asked: string[] = [];
    const dropped: Errand[] = [];
    const errands = {
      again: () => undefined,
      drop: (one: Errand) => {
        dropped.push(one);
        return Promise.resolve();
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(deviceFeature),
        { provide: NgbActiveModal, useValue: {} },
        { provide: DeviceStore, useValue: { canKeep: signal(true) } },
        { provide: Errands, useValue: errands },
        { provide: JobSync, useValue: {} },
        {
          provide: Readiness,
          useValue: {
            look: () => Promise.resolve(),
            needs: signal([]),
            isReady: signal(true),
            isPersisted: signal(true),
          },
        },
        {
          provide: ReasonPrompt,
          useValue: {
            ask: (question: string) => {
              asked.push(question);
              return Promise.resolve(reason);
            },
          },
        },
      ],
    });
    const store = TestBed.inject(Store);
    for (const action of actions) store.dispatch(action);
    const said: Action[] = [];
    TestBed.inject(ScannedActionsSubject).subscribe((action) => said.push(action));
    const fixture = TestBed.createComponent(WaitingDialog);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const click = async (name: string): Promise<void> => {
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!.click();
      await fixture.whenStable();
    };
    return { root, click, asked, dropped, said };
  }

  it('says that nothing waits', async () => {
    const { root } = await show([]);
    expect(root.querySelector('li')!.textContent).toContain('Nothing waits');
  });

  it('lists what waits, and offers nothing for it: it goes by itself', async () => {
    const { root } = await show([JobActions.reported({ event: tap }), DeviceActions.errandKept({ errand })]);
    expect(root.querySelectorAll('li').length).toBe(2);
    expect(root.querySelectorAll('li button').length).toBe(0);
  });

  it('sends a refused tap again, and drops it only with a reason', async () => {
    const parked = [
      JobActions.reported({ event: tap }),
      DeviceActions.parked({ eventId: tap.id, why: 'No such job.' } as never),
    ];
    const without = await show(parked);
    expect(without.root.textContent).toContain('No such job.');
    await without.click('Drop it');
    expect(without.asked.length).toBe(1);
    await without.click('Send again');
    expect(without.root.querySelectorAll('li button').length).toBe(0);
    expect(without.said.map(({ type }) => type)).toEqual([DeviceActions.sendAgain.type]);
    TestBed.resetTestingModule();
    const reasoned = await show(parked, 'the job is gone');
    await reasoned.click('Drop it');
    expect(reasoned.said.map(({ type }) => type)).toEqual([DeviceActions.dropped.type]);
  });

  it('drops a refused errand with a reason', async () => {
    const refused = { ...errand, why: 'Too large.' };
    const { click, dropped } = await show([DeviceActions.errandKept({ errand: refused })], 'a better one');
    await click('Drop it');
    expect(dropped).toEqual([refused]);
  });
});
