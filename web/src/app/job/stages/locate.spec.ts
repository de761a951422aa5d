import { TestBed } from '@angular/core/testing';
import type { JobEvent } from '@voltrek/core/job';
import { detailOf, event, opened, workOf } from '../../../testing/fixtures';
import { openedStore } from '../../../testing/job-harness';
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
    for (const key of [...root.querySelectorAll<HTMLButtonElement>('fieldset .keys .key')].slice(0, 2))
      key.click();
    await fixture.whenStable();
    expect(next().disabled).toBeFalse();
    await hear();
    expect(next().disabled).toBeFalse();
    expect(root.querySelectorAll('fieldset [aria-pressed=true]').length).toBe(2);
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
