import { TestBed } from '@angular/core/testing';
import type { JobEvent } from '@voltrek/core/job';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { detailOf, event, opened, planned } from '../../testing/fixtures';
import { openedStore } from '../../testing/job-harness';
import { MakeSafeDialog } from './make-safe-dialog';
import { jobFeature } from '../shared/model/job-state';

describe('MakeSafeDialog', () => {
  const start = [
    opened(),
    event('polarity.proved', { signs: ['mark', 'meter'] }),
    planned('donor+heavy'),
    event('step.confirmed', { step: 'all-off' }),
  ];
  const on = (clamp: 'redCasualty' | 'redSource' | 'blackSource' | 'blackCasualty', pointId: string) =>
    event('clamp.attached', { clamp, pointId });

  async function show(...events: JobEvent[]) {
    const store = openedStore(detailOf([...start, ...events]), [
      { provide: NgbActiveModal, useValue: { dismiss: () => undefined } },
    ]);
    const fixture = TestBed.createComponent(MakeSafeDialog);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    return { fixture, root, pending: store.selectSignal(jobFeature.selectPending) };
  }
  const now = (root: HTMLElement): string => root.querySelector('.now')!.textContent;

  it('says that nothing is on when nothing is', async () => {
    const { root } = await show();
    expect(now(root)).toBe('Everything is off.');
    expect(root.querySelector('.go')).toBeNull();
  });

  it('takes off the black on the casualty first, and the donor’s engine is not forgotten', async () => {
    const { fixture, root, pending } = await show(
      on('redCasualty', 'plus'),
      on('redSource', 'plus'),
      on('blackSource', 'minus'),
      on('blackCasualty', 'ground'),
      event('donor.switched', { running: true }),
    );
    const done: string[] = [];
    while (root.querySelector('.go')) {
      done.push(now(root));
      root.querySelector<HTMLButtonElement>('.go')!.click();
      await fixture.whenStable();
      if (done.length > 10) throw new Error(`no end: ${done.join(', ')}`);
    }
    const clamps = done.filter((t) => /^(Red|Black)/.test(t));
    expect(clamps[0]).toBe('Black off casualty ground point');
    expect(clamps.length).toBe(4);
    expect(clamps.findIndex((t) => t.startsWith('Red'))).toBe(2);
    expect(done.some((t) => /donor/i.test(t) && !/^(Red|Black)/.test(t))).toBeTrue();
    expect(now(root)).toBe('Everything is off.');
    expect(pending().filter((e) => e.type === 'clamp.detached').length).toBe(4);
  });

  it('works from a half-made state too: a red end that hangs live comes off where it is fed', async () => {
    const { root } = await show(on('redCasualty', 'plus'));
    expect(now(root)).toBe('Red off casualty battery +');
  });
});
