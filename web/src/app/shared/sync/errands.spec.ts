import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideState, provideStore, Store } from '@ngrx/store';
import { deleteDB } from 'idb';
import { NEVER, type Observable, of, throwError } from 'rxjs';
import type { Call } from '@voltrek/contracts';
import type { JobEvent } from '@voltrek/core/job';
import { CAR, event, opened } from '../../../testing/fixtures';
import { Api } from '../data/api';
import { NotKept } from '../data/problem';
import { deviceFeature } from './device-state';
import { DeviceStore } from './device-store';
import type { CallErrand, Errand } from '../model/errand';
import { Errands } from './errands';

const AT = '2027-01-15T02:40:00.000Z';
const entry: Errand = {
  ...{ id: 'e1', at: AT, why: null },
  ...{ kind: 'entry', machine: CAR, by: 'crew-1', note: '' },
};
const photo: Errand = { id: 'e2', at: AT, why: null, kind: 'photo', modelId: 'car', by: 'crew-1' };
const call: CallErrand = {
  ...{
    id: 'e3',
    at: AT,
    why: null,
    kind: 'call',
    vehicleId: 'v',
    vehicle: { plate: null, fleetNumber: null, serialNumber: null },
    modelId: 'car',
  },
  call: { id: 'e3', title: 'T', placeName: 'P', said: '', ambientC: 0, urgent: false, modelId: 'car' },
};
const fails = (status: number): Observable<never> =>
  throwError(() => new HttpErrorResponse({ status, error: { status, detail: 'No such model.' } }));

describe('what is sent beside the events', () => {
  let sent: string[];
  let answer: (what: string) => Observable<unknown>;

  beforeEach(async () => {
    localStorage.clear();
    await deleteDB('voltrek');
    sent = [];
    answer = () => of({});
    const told = (what: string): Observable<unknown> => {
      sent.push(what);
      return answer(what);
    };
    const api = {
      openCall: ({ id }: { id: string }) => told(id),
      addEntry: ({ id }: { id: string }) => told(`entry ${id}`),
      addJobPhoto: (job: string, _by: string, _picture: Blob, id: string) => told(`${id} of ${job}`),
      addPhoto: (_model: string, _by: string, picture: Blob, id: string) => told(`${id} ${picture.size}`),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(deviceFeature),
        { provide: Api, useValue: api },
      ],
    });
    for (const [errand, picture] of [
      [entry, null],
      [photo, new Blob(['12345'])],
      [call, null],
    ] as const)
      await TestBed.inject(Errands).keep(errand, picture);
  });
  const left = async (): Promise<string[]> =>
    (await TestBed.inject(DeviceStore).errands()).map(({ errand }) => errand.id);
  const shown = (): readonly Errand[] => TestBed.inject(Store).selectSignal(deviceFeature.selectErrands)();

  it('goes in the order it was kept, pictures last and not before a tap, and is gone from the device then', async () => {
    expect(await TestBed.inject(Errands).send(false)).toBeTrue();
    expect(sent).toEqual(['entry car', 'e3']);
    expect(await left()).toEqual(['e2']);
    await TestBed.inject(Errands).send(true);
    expect(sent.slice(2)).toEqual(['e2 5']);
    expect(await left()).toEqual([]);
    expect(shown()).toEqual([]);
  });

  it('keeps a photo of a job back while the first tap of that job waits here', async () => {
    const first = opened();
    const ofJob: Errand = {
      id: 'e4',
      at: AT,
      why: null,
      kind: 'job-photo',
      jobId: first.jobId,
      by: 'crew-1',
    };
    const device = TestBed.inject(DeviceStore);
    await device.keep(first);
    await TestBed.inject(Errands).keep(ofJob, new Blob(['1']));
    expect(await TestBed.inject(Errands).send(true)).toBeTrue();
    expect(sent).not.toContain(`e4 of ${first.jobId}`);
    await device.drop(first.id);
    await TestBed.inject(Errands).send(true);
    expect(sent).toContain(`e4 of ${first.jobId}`);
    expect(await left()).toEqual([]);
  });

  it('waits while no server answers, and is sent once though two ask for it', async () => {
    answer = () => fails(504);
    expect(await TestBed.inject(Errands).send(true)).toBeFalse();
    expect(await left()).toEqual(['e1', 'e2', 'e3']);
    answer = () => of({});
    sent = [];
    await Promise.all([TestBed.inject(Errands).send(true), TestBed.inject(Errands).send(true)]);
    expect(sent).toEqual(['entry car', 'e3', 'e2 5']);
  });

  it('stays in sight with what the server said against it, holds up nothing else, and is sent again or dropped by hand', async () => {
    answer = (what) => (what.startsWith('entry') ? fails(404) : of({}));
    expect(await TestBed.inject(Errands).send(true)).toBeTrue();
    expect(shown()).toEqual([{ ...entry, why: 'No such model.' }]);
    const about = (modelId: string): JobEvent => event('model.identified', { modelId });
    expect(await TestBed.inject(Errands).standsBefore(about('car'))).toBe('No such model.');
    expect(await TestBed.inject(Errands).standsBefore(about('van'))).toBeNull();
    expect(await TestBed.inject(Errands).standsBefore(opened())).toBe('No such model.');
    sent = [];
    await TestBed.inject(Errands).send(true);
    expect(sent).toEqual([]);
    await TestBed.inject(Errands).again(entry);
    expect(sent).toEqual(['entry car']);
    await TestBed.inject(Errands).drop(entry);
    expect(await left()).toEqual([]);
    expect(shown()).toEqual([]);
  });

  it('is sent at once when it is typed in, and kept only where nobody answers', async () => {
    const late: CallErrand = { ...call, id: 'e4', call: { ...call.call, id: 'e4' } };
    expect(await TestBed.inject(Errands).offer(call)).toEqual({} as Call);
    answer = () => fails(400);
    await expectAsync(TestBed.inject(Errands).offer(late)).toBeRejected();
    expect(await left()).toEqual(['e1', 'e2', 'e3']);
    answer = () => NEVER;
    expect(await TestBed.inject(Errands).offer(late, 5)).toBeNull();
    expect(await left()).toEqual(['e1', 'e2', 'e3', 'e4']);
    answer = () => fails(0);
    spyOn(TestBed.inject(DeviceStore), 'keepErrand').and.resolveTo(false);
    await expectAsync(TestBed.inject(Errands).offer({ ...late, id: 'e5' })).toBeRejectedWithError(NotKept);
  });
});
