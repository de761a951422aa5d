import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideState, provideStore, Store } from '@ngrx/store';
import type { BoardCall } from '@voltrek/contracts';
import { boardCopy } from '../data/board';
import { DeviceStore } from './device-store';
import { Readiness } from './readiness';

const MADE = 'Fri, 15 Jan 2027 02:40:00 GMT';
const callWith = (id: string) =>
  ({ id: `call of ${id}`, job: { id, state: 'open' } }) as unknown as BoardCall;

describe('Readiness', () => {
  function of(kept: readonly string[], held: readonly string[], isServed = true) {
    spyOnProperty(navigator.serviceWorker, 'controller').and.returnValue(
      isServed ? ({} as ServiceWorker) : null,
    );
    spyOn(caches, 'match').and.callFake((address) =>
      Promise.resolve(
        kept.includes(address as string) ? new Response('', { headers: { date: MADE } }) : undefined,
      ),
    );
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(boardCopy),
        { provide: DeviceStore, useValue: { heldIds: () => Promise.resolve(new Set(held)) } },
      ],
    });
    TestBed.inject(Store).dispatch(boardCopy.changed([callWith('a'), callWith('b')]));
    return TestBed.inject(Readiness);
  }
  const ALL = ['/index.html', '/api/device', '/api/rules', '/api/vans'];

  it('is ready with every copy and every open job of the board here, and tells of when each is', async () => {
    const readiness = of(ALL, ['a', 'b', 'c']);
    expect(readiness.isReady()).withContext('before anybody looked').toBeNull();
    await readiness.look();
    expect(readiness.isReady()).toBeTrue();
    expect(readiness.needs()!.find(({ name }) => name === 'atlas')!.at).toBe('2027-01-15T02:40:00.000Z');
  });

  it('names what is missing: a copy, or a job of the board', async () => {
    for (const [kept, held, missing] of [
      [ALL.filter((address) => address !== '/api/rules'), ['a', 'b'], ['rules']],
      [ALL, ['a'], ['jobs']],
    ] as const) {
      const readiness = of(kept, held);
      await readiness.look();
      const gone = readiness.needs()!.filter(({ isHere }) => !isHere);
      expect(gone.map(({ name }) => name as string)).toEqual([...missing]);
      expect(readiness.isReady()).toBeFalse();
      TestBed.resetTestingModule();
      jasmine.getEnv().allowRespy(true);
    }
  });

  it('is not ready while no service worker serves the page, whatever lies in its caches', async () => {
    const readiness = of(ALL, ['a', 'b'], false);
    await readiness.look();
    expect(readiness.isReady()).toBeFalse();
  });
});
