import { TestBed } from '@angular/core/testing';
import { type Action, type ActionReducer, Store } from '@ngrx/store';
import { Actions } from '@ngrx/effects';
import { Subject } from 'rxjs';
import { event } from '../../../testing/fixtures';
import { JobActions } from '../model/job-state';
import { acrossPages, PageActions } from '../model/across-pages';
import { StreamLine } from '../data/stream-line';
import { SharedPages } from './shared-pages';

describe('SharedPages', () => {
  const tap = JobActions.reported({ event: event('symptom.recorded', { symptom: 'silence' }) });

  it('tells other pages the taps of this one and nothing else, and takes theirs without telling them on', () => {
    const here = new Subject<Action>();
    const there = new Subject<Action>();
    const told: Action[] = [];
    const taken: Action[] = [];
    TestBed.configureTestingModule({
      providers: [
        { provide: Actions, useValue: here },
        { provide: Store, useValue: { dispatch: (action: Action) => taken.push(action) } },
        {
          provide: StreamLine,
          useValue: { ofPages: there, tellPages: (action: Action) => told.push(action) },
        },
      ],
    });
    TestBed.inject(SharedPages).start();
    here.next(tap);
    here.next(JobActions.opened({ jobId: 'job-1' }));
    expect(told).toEqual([tap]);
    there.next(tap);
    expect(taken).toEqual([PageActions.doneElsewhere({ action: tap })]);
    // The action of another page comes back here: it goes out no second time.
    here.next(taken[0]!);
    expect(told).toEqual([tap]);
  });

  it('changes what is shown by the tap of another page as by one of its own', () => {
    const names: ActionReducer<readonly string[]> = (all = [], { type }) => [...all, type];
    const reducer = acrossPages(names);
    expect(reducer([], PageActions.doneElsewhere({ action: tap }))).toEqual(reducer([], tap));
  });
});
