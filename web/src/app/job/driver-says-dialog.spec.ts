import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { TestBed } from '@angular/core/testing';
import type { JobEvent } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { CAR, detailOf, event, opened } from '../../testing/fixtures';
import { openedStore } from '../../testing/job-harness';
import { jobFeature } from '../shared/model/job-state';
import { DriverSaysDialog } from './driver-says-dialog';

async function show(machine: Machine, ...events: JobEvent[]) {
  const store = openedStore({ ...detailOf([opened(), ...events]), machine }, [
    { provide: NgbActiveModal, useValue: { close: () => undefined } },
  ]);
  const fixture = TestBed.createComponent(DriverSaysDialog);
  await fixture.whenStable();
  const root = fixture.nativeElement as HTMLElement;
  const tap = async (button: HTMLButtonElement): Promise<void> => {
    button.click();
    await fixture.whenStable();
  };
  return { root, tap, reported: store.selectSignal(jobFeature.selectPending) };
}
const named = (root: HTMLElement, name: string): HTMLButtonElement =>
  [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!;
const row = (root: HTMLElement, name: RegExp): HTMLElement =>
  [...root.querySelectorAll<HTMLElement>('[role=group]')].find((r) =>
    name.test(r.getAttribute('aria-label')!),
  )!;
const answer = (root: HTMLElement, name: RegExp, text: string): HTMLButtonElement =>
  [...row(root, name).querySelectorAll('button')].find((b) => b.textContent.trim() === text)!;

describe('What the driver says', () => {
  it('is taken in any order with one tap each, overruled by another, and taken back by the same', async () => {
    const { root, tap, reported } = await show(CAR);
    await tap(answer(root, /Noises/, 'squeals after a start'));
    await tap(answer(root, /Noises/, 'none'));
    expect(answer(root, /Noises/, 'none').getAttribute('aria-pressed')).toBe('true');
    await tap(answer(root, /Noises/, 'none'));
    expect(answer(root, /Noises/, 'none').getAttribute('aria-pressed')).toBe('false');
    expect(reported().map((e) => e.type)).toEqual([
      'finding.recorded',
      'finding.recorded',
      'finding.withdrawn',
    ]);
  });

  it('reckons what something left on has taken', async () => {
    const { root, tap } = await show(CAR, event('finding.recorded', { check: 'ask-left-on', found: 'yes' }));
    await tap(named(root, 'headlamps'));
    const { capacityAh } = CAR.batteries[0]!.rating;
    // 140 W at 12 V for the eight hours that stand there first: 93 Ah, more than is in it.
    expect(root.querySelector('[role=status]')!.textContent).toContain(`Ah of ${capacityAh}`);
    expect(root.querySelector('[role=status]')!.textContent).toContain('It explains this');
    await tap(named(root, 'inside lamp'));
    // 12 W: 8 Ah.
    expect(root.querySelector('[role=status]')!.textContent).toContain('8.0 Ah');
    expect(root.querySelector('[role=status]')!.textContent).toContain('does not explain this by itself');
  });

  it('asks nothing of an engine where there is none', async () => {
    const { root } = await show({ ...CAR, machineClass: 'ev', engine: null });
    expect(row(root, /Noises/)).toBeUndefined();
    expect(row(root, /Flat before/)).toBeDefined();
  });
});
