import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { foldJob, type JobEvent } from '@voltrek/core';
import { provideState, provideStore } from '@ngrx/store';
import { detailOf, event, opened } from '../../../testing/fixtures';
import { sessionFeature } from '../../shared/state/session';
import { jobFeature } from '../state/job-state';
import { Locate } from './locate';

describe('Locate', () => {
  it('keeps the signs being ticked when another event arrives meanwhile', async () => {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(jobFeature),
        provideState(sessionFeature),
      ],
    });
    const fixture = TestBed.createComponent(Locate);
    const log: JobEvent[] = [opened()];
    const show = (): void => fixture.componentRef.setInput('work', { job: foldJob(log)!, ...detailOf(log) });
    show();
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const next = (): HTMLButtonElement => root.querySelector<HTMLButtonElement>('.next')!;
    expect(next().disabled).toBeTrue();
    for (const key of [...root.querySelectorAll<HTMLButtonElement>('fieldset .keys .key')].slice(0, 2))
      key.click();
    await fixture.whenStable();
    expect(next().disabled).toBeFalse();
    log.push(event('stage.opened', { stage: 'locate' }));
    show();
    await fixture.whenStable();
    expect(next().disabled).toBeFalse();
    expect(root.querySelectorAll('fieldset [aria-pressed=true]').length).toBe(2);
  });
});
