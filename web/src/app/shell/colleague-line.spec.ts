import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideState, provideStore, Store } from '@ngrx/store';
import { detailOf, event, JOB_ID, opened } from '../../testing/fixtures';
import { boardCopy } from '../shared/data/board';
import { crewCopy } from '../shared/data/crew';
import { kitCopy } from '../shared/data/kit';
import { rulesCopy } from '../shared/data/rules';
import { JobActions, jobFeature } from '../shared/model/job-state';
import { ColleagueLine } from './colleague-line';

describe('the line of a colleague', () => {
  async function show() {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(boardCopy),
        provideState(crewCopy),
        provideState(kitCopy),
        provideState(rulesCopy),
        provideState(jobFeature),
      ],
    });
    const store = TestBed.inject(Store);
    store.dispatch(crewCopy.changed([{ id: 'crew-2', name: 'Tamsel', role: 'technician', retired: false }]));
    store.dispatch(JobActions.opened({ jobId: JOB_ID }));
    store.dispatch(JobActions.loaded({ jobId: JOB_ID, detail: detailOf([opened()]), waiting: [] }));
    const fixture = TestBed.createComponent(ColleagueLine);
    await fixture.whenStable();
    const host = fixture.nativeElement as HTMLElement;
    const hear = async (secondsAgo: number): Promise<void> => {
      const at = new Date(Date.now() - secondsAgo * 1000).toISOString();
      const theirs = { ...event('symptom.recorded', { symptom: 'silence' }), by: 'crew-2', at };
      store.dispatch(JobActions.received({ event: theirs, revision: 2 }));
      await fixture.whenStable();
    };
    return { host, hear };
  }

  it('tells who did what on another device, and how long ago', async () => {
    const { host, hear } = await show();
    expect(host.classList).not.toContain('told');
    await hear(12);
    expect(host.classList).toContain('told');
    expect(host.textContent).toMatch(/^Tamsel, elsewhere: symptom, .+, 1[123] s ago$/);
  });

  it('is gone once the act is old', async () => {
    const { host, hear } = await show();
    await hear(45);
    expect(host.classList).not.toContain('told');
  });
});
