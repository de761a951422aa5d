import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideState, provideStore } from '@ngrx/store';
import type { AtlasEntry } from '@voltrek/contracts';
import { deleteDB } from 'idb';
import { NEVER, type Observable, of, Subject, throwError, timeout } from 'rxjs';
import { CAR } from '../../../testing/fixtures';
import { Api } from '../data/api';
import { problemText } from '../data/problem';
import { deviceFeature } from './device-state';
import { DeviceStore } from './device-store';
import { SendPhoto } from './send-photo';

const ENTRY = { machine: CAR, photos: [] } as unknown as AtlasEntry;
const picture = new File(['12345'], 'battery.png', { type: 'image/png' });

describe('a photo that is sent', () => {
  let answer: Observable<AtlasEntry>;
  let asked: number;

  beforeEach(async () => {
    localStorage.clear();
    await deleteDB('voltrek');
    asked = 0;
    const addPhoto = (): Observable<AtlasEntry> => {
      asked++;
      return answer;
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(deviceFeature),
        { provide: Api, useValue: { addPhoto } },
      ],
    });
  });
  const send = (): Promise<AtlasEntry | null> => TestBed.inject(SendPhoto).send('car', 'crew-1', picture);
  const kept = async (): Promise<string[]> => {
    const photos = (await TestBed.runInInjectionContext(() => new DeviceStore()).errands()).map(({ photo }) =>
      photo!.text(),
    );
    return Promise.all(photos);
  };

  it('is on the device before the server is asked, and gone from it once the server has it', async () => {
    const late = new Subject<AtlasEntry>();
    answer = late;
    const sent = send();
    while (asked === 0) await new Promise((done) => setTimeout(done, 5));
    expect(await kept()).toEqual(['12345']);
    late.next(ENTRY);
    late.complete();
    expect(await sent).toBe(ENTRY);
    expect(await kept()).toEqual([]);
  });

  it('stays on the device while no server answers, be it in silence', async () => {
    const silence = NEVER.pipe(timeout(1));
    for (const nobody of [throwError(() => new HttpErrorResponse({ status: 0 })), silence]) {
      answer = nobody;
      expect(await send()).toBeNull();
    }
    expect(await kept()).toEqual(['12345', '12345']);
  });

  it('is not kept when the server would not have it: whoever sent it is told', async () => {
    answer = throwError(
      () => new HttpErrorResponse({ status: 400, error: { status: 400, detail: 'No photo.' } }),
    );
    await expectAsync(send().catch((error: unknown) => problemText(error))).toBeResolvedTo('No photo.');
    expect(await kept()).toEqual([]);
  });

  it('is sent where the device cannot keep it, and not said to be kept where nobody answers either', async () => {
    spyOn(indexedDB, 'open').and.throwError('denied');
    answer = of(ENTRY);
    expect(await send()).toBe(ENTRY);
    answer = throwError(() => new HttpErrorResponse({ status: 0 }));
    await expectAsync(send().catch((error: unknown) => problemText(error))).toBeResolvedTo(
      'The server does not answer, and this device cannot keep it. It is not saved.',
    );
  });
});
