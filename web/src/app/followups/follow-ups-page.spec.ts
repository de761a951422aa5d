import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { DueFollowUp } from '@voltrek/contracts';
import { Actions } from '@ngrx/effects';
import { type Action, provideState, provideStore, ScannedActionsSubject } from '@ngrx/store';
import { of } from 'rxjs';
import { JobActions, jobFeature } from '../shared/model/job-state';
import { OpenJob } from '../shared/job/open-job';
import { Api } from '../shared/data/api';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { deviceFeature } from '../shared/sync/device-state';
import { DeviceStore } from '../shared/sync/device-store';
import { FollowUpsPage } from './follow-ups-page';

const due = (jobId: string, kind: DueFollowUp['kind'], dueOn: string): DueFollowUp =>
  ({ jobId, kind, dueOn, title: `Car of ${jobId}`, placeName: 'Yard' }) as DueFollowUp;

describe('Follow-ups', () => {
  it('takes what is done off the list at once and sends it as a tap, without asking the server first', async () => {
    const reported: Action[] = [];
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideStore(),
        provideState(sessionFeature),
        provideState(crewCopy),
        provideState(jobFeature),
        provideState(deviceFeature),
        { provide: Actions, useExisting: ScannedActionsSubject },
        { provide: OpenJob, useValue: {} },
        {
          provide: DeviceStore,
          useValue: { held: () => Promise.resolve(null), waitingFor: () => Promise.resolve([]) },
        },
        {
          provide: Api,
          useValue: {
            followUps: () =>
              of([due('job-a', 'inspect', '2027-01-10'), due('job-b', 'inspect', '2027-02-10')]),
          },
        },
      ],
    });
    TestBed.inject(ScannedActionsSubject).subscribe((action) => reported.push(action));
    const fixture = TestBed.createComponent(FollowUpsPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    expect(root.querySelectorAll('li').length).toBe(2);
    const row = [...root.querySelectorAll('li')].find((li) => li.textContent.includes('job-a'))!;
    [...row.querySelectorAll('button')].at(-1)!.click();
    await new Promise((done) => setTimeout(done, 50));
    await fixture.whenStable();
    const tap = reported.find((action) => action.type === JobActions.reported.type) as
      | ReturnType<typeof JobActions.reported>
      | undefined;
    expect([tap?.event.jobId, tap?.event.type, tap?.event.data]).toEqual([
      'job-a',
      'follow-up.done',
      { kind: 'inspect' },
    ]);
    expect([...root.querySelectorAll('li')].map((li) => li.textContent.includes('job-b'))).toEqual([true]);
  });
});
