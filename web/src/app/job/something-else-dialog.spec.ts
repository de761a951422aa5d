import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { detailOf, event, opened, planned } from '../../testing/fixtures';
import { openedStore } from '../../testing/job-harness';
import { SomethingElseDialog } from './something-else-dialog';
import { jobFeature } from '../shared/job/job-state';

describe('SomethingElseDialog', () => {
  async function show() {
    const events = [
      opened(),
      event('polarity.proved', { signs: ['mark', 'meter'] }),
      planned('donor+heavy'),
      event('step.confirmed', { step: 'all-off' }),
      event('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' }),
    ];
    let closed = false;
    const store = openedStore(detailOf(events), [
      { provide: NgbActiveModal, useValue: { close: () => (closed = true), dismiss: () => undefined } },
    ]);
    const fixture = TestBed.createComponent(SomethingElseDialog);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const place = async (row: number, pointId: string): Promise<void> => {
      const select = root.querySelectorAll<HTMLSelectElement>('label:not(.metal) select')[row]!;
      select.value = pointId;
      select.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    const submit = (): void => {
      root.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
    };
    const pending = () =>
      store
        .selectSignal(jobFeature.selectPending)()
        .map((e) => ({ type: e.type as string, data: e.data as unknown }));
    return { root, place, submit, pending, closed: () => closed };
  }

  it('shows where every clamp is, and has nothing to report while nothing differs', async () => {
    const { root } = await show();
    expect(
      [...root.querySelectorAll<HTMLSelectElement>('label:not(.metal) select')].map((s) => s.value),
    ).toEqual(['plus', '', '', '']);
    expect(root.querySelector<HTMLButtonElement>('[type=submit]')!.disabled).toBeTrue();
  });

  it('reports a clamp that was moved as off, then on', async () => {
    const { place, submit, pending, closed } = await show();
    await place(0, 'minus');
    await place(3, 'ground');
    submit();
    expect(pending()).toEqual([
      { type: 'clamp.detached', data: { clamp: 'redCasualty' } },
      { type: 'clamp.attached', data: { clamp: 'redCasualty', pointId: 'minus' } },
      { type: 'clamp.attached', data: { clamp: 'blackCasualty', pointId: 'ground' } },
    ]);
    expect(closed()).toBeTrue();
  });
});
