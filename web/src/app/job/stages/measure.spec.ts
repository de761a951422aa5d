import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { foldJob, type JobEvent } from '@voltrek/core';
import { provideState, provideStore, Store } from '@ngrx/store';
import { detailOf, event, JOB_ID, opened } from '../../../testing/fixtures';
import { sessionFeature } from '../../shared/state/session';
import { JobActions, jobFeature } from '../state/job-state';
import { Measure } from './measure';

describe('Measure', () => {
  function show(events: readonly JobEvent[] = [opened()]) {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(jobFeature),
        provideState(sessionFeature),
      ],
    });
    const store = TestBed.inject(Store);
    store.dispatch(JobActions.opened({ jobId: JOB_ID }));
    store.dispatch(JobActions.loaded({ jobId: JOB_ID, detail: detailOf(events), waiting: [] }));
    const fixture = TestBed.createComponent(Measure);
    fixture.componentRef.setInput('work', { job: foldJob(events)!, ...detailOf(events) });
    const root = fixture.nativeElement as HTMLElement;
    const press = async (keys: string): Promise<void> => {
      for (const key of keys) {
        [...root.querySelectorAll<HTMLButtonElement>('vt-number-pad .key')]
          .find((b) => b.textContent.trim() === key)!
          .click();
      }
      await fixture.whenStable();
    };
    const pending = () => store.selectSignal(jobFeature.selectPending)();
    return { fixture, root, press, pending };
  }

  it('shows what the figure means before it is taken, then takes it', async () => {
    const { fixture, root, press, pending } = show();
    await fixture.whenStable();
    await press('1195');
    expect(root.querySelector('.display')!.textContent).toContain('11.95');
    expect(root.querySelector('.preview')!.textContent).toContain('Low');
    root.querySelector<HTMLButtonElement>('.next')!.click();
    expect(pending().map((e) => e.type)).toEqual(['reading.taken']);
    expect(pending()[0]!.data).toEqual(jasmine.objectContaining({ kind: 'rest', volts: 11.95, tempC: -4 }));
  });

  it('refuses a figure one block cannot read, and says the range', async () => {
    const { fixture, root, press, pending } = show();
    await fixture.whenStable();
    await press('2510');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('between -16 and 16 V');
    expect(root.querySelector<HTMLButtonElement>('.next')!.disabled).toBeTrue();
    expect(pending()).toEqual([]);
  });

  it('raises the stop by itself when the block must be frozen', async () => {
    const cold = event('scene.recorded', {
      ambientC: -12,
      place: 'yard',
      sloping: false,
      dark: true,
      enclosed: false,
      mainsNear: false,
    });
    const { fixture, root, press, pending } = show([opened(), cold]);
    await fixture.whenStable();
    await press('1120');
    root.querySelector<HTMLButtonElement>('.next')!.click();
    expect(pending().map((e) => e.type)).toEqual(['reading.taken', 'stop.raised']);
    expect(pending()[1]!.data).toEqual({ stop: 'frozen' });
  });

  it('moves on to the next reading once one is taken', async () => {
    const rest = event('reading.taken', { kind: 'rest', volts: 11.9, block: 0, tempC: -4, source: 'typed' });
    const { fixture, root } = show([opened(), rest]);
    await fixture.whenStable();
    expect(root.querySelector('[aria-checked=true]')!.textContent).toContain('Crank minimum');
  });
});
