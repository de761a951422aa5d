import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { detailOf, event, opened, planned } from '../../testing/fixtures';
import { openedStore } from '../../testing/job-harness';
import { SomethingElseDialog } from './something-else-dialog';
import { jobFeature } from '../shared/model/job-state';

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
    const group = (n: number): HTMLButtonElement[] => [
      ...root.querySelectorAll('[role=radiogroup]')[n]!.querySelectorAll<HTMLButtonElement>('[role=radio]'),
    ];
    const clamps = (): HTMLButtonElement[] => group(0);
    const place = async (row: number, name: string): Promise<void> => {
      clamps()[row]!.click();
      await fixture.whenStable();
      const keys = group(1);
      const key = keys.find((k) => k.textContent.trim() === name);
      if (!key) throw new Error(keys.map((k) => k.textContent.trim()).join('|'));
      key.click();
      await fixture.whenStable();
    };
    const submit = (): void => {
      root.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
    };
    const pending = () =>
      store
        .selectSignal(jobFeature.selectPending)()
        .map((e) => ({ type: e.type as string, data: e.data as unknown }));
    return { root, fixture, clamps, place, submit, pending, closed: () => closed };
  }

  it('shows where every clamp is, and has nothing to report while nothing differs', async () => {
    const { root, clamps } = await show();
    expect(clamps().map((key) => key.querySelector('span')!.textContent)).toEqual([
      jasmine.stringContaining('battery +'),
      'free',
      'free',
      'free',
    ]);
    expect(root.querySelector<HTMLButtonElement>('[type=submit]')!.disabled).toBeTrue();
  });

  it('reports a clamp that was moved as off, then on', async () => {
    const { place, submit, pending, closed } = await show();
    await place(0, 'battery -: Battery -');
    await place(3, 'ground point: ground');
    submit();
    expect(pending()).toEqual([
      { type: 'clamp.detached', data: { clamp: 'redCasualty' } },
      { type: 'clamp.attached', data: { clamp: 'redCasualty', pointId: 'minus' } },
      { type: 'clamp.attached', data: { clamp: 'blackCasualty', pointId: 'ground' } },
    ]);
    expect(closed()).toBeTrue();
  });

  it('is told on the drawing too: a tap on a numbered place puts the clamp there', async () => {
    const { root, fixture, clamps } = await show();
    clamps()[3]!.click();
    await fixture.whenStable();
    const pins = root.querySelectorAll<SVGGElement>('vt-circuit .pin');
    expect([...pins].map((pin) => pin.textContent.trim())).toEqual(['1', '2', '3']);
    pins[2]!.dispatchEvent(new MouseEvent('click', { bubbles: true }));
    await fixture.whenStable();
    expect(clamps()[3]!.textContent).toContain('ground point');
    // The donor's own places are numbered for a clamp of its end.
    clamps()[1]!.click();
    await fixture.whenStable();
    expect(root.querySelectorAll('vt-circuit .pin').length).toBeGreaterThan(1);
  });
});
