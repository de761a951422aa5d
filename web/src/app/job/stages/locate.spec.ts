import { TestBed } from '@angular/core/testing';
import { Actions, ofType } from '@ngrx/effects';
import type { JobEvent } from '@voltrek/core/job';
import { detailOf, event, opened, workOf } from '../../../testing/fixtures';
import { openedStore } from '../../../testing/job-harness';
import { JobActions } from '../../shared/model/job-state';
import { Locate } from './locate';

describe('Locate', () => {
  async function shown() {
    const log: JobEvent[] = [opened()];
    openedStore(detailOf([...log]));
    const fixture = TestBed.createComponent(Locate);
    const show = (): void => fixture.componentRef.setInput('work', workOf(log));
    show();
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const hear = async (): Promise<void> => {
      log.push(event('symptom.recorded', { symptom: 'silence' }));
      show();
      await fixture.whenStable();
    };
    return { fixture, root, hear };
  }

  it('keeps the signs being ticked when another event arrives meanwhile', async () => {
    const { fixture, root, hear } = await shown();
    const next = (): HTMLButtonElement => root.querySelector<HTMLButtonElement>('.next')!;
    expect(next().disabled).toBeTrue();
    const [sign] = root.querySelectorAll<HTMLButtonElement>('fieldset .keys .key');
    sign!.click();
    await fixture.whenStable();
    await hear();
    expect(next().disabled).toBeTrue();
    expect(root.querySelectorAll('fieldset [aria-pressed=true]').length).toBe(1);
  });

  it('finds positive with the second sign', async () => {
    const { fixture, root } = await shown();
    const told: JobEvent[] = [];
    const actions = TestBed.inject(Actions).pipe(ofType(JobActions.reported));
    actions.subscribe(({ event }) => told.push(event));
    let left = 0;
    fixture.componentInstance.next.subscribe(() => left++);
    const keys = [...root.querySelectorAll<HTMLButtonElement>('fieldset .keys .key')];
    keys[0]!.click();
    expect([told.length, left]).toEqual([0, 0]);
    keys[1]!.click();
    expect([told.map(({ type }) => type), left]).toEqual([['polarity.proved'], 1]);
  });

  it('stays on the part it shows when another event arrives meanwhile', async () => {
    const { fixture, root, hear } = await shown();
    const part = (name: string): HTMLButtonElement =>
      [...root.querySelectorAll<HTMLButtonElement>('.key')].find((b) => b.textContent.trim() === name)!;
    part('Another machine').click();
    await fixture.whenStable();
    expect(root.querySelector('vt-identify')).not.toBeNull();
    await hear();
    expect(root.querySelector('vt-identify')).not.toBeNull();
  });
});
