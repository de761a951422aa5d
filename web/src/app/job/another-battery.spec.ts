import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { detailOf, opened } from '../../testing/fixtures';
import { openedStore } from '../../testing/job-harness';
import { jobFeature } from '../shared/model/job-state';
import { AnotherBatteryDialog } from './another-battery';

describe('AnotherBatteryDialog', () => {
  async function show() {
    const closed: unknown[] = [];
    const modal = { close: () => closed.push(true), dismiss: () => undefined };
    const store = openedStore(detailOf([opened()]), [{ provide: NgbActiveModal, useValue: modal }]);
    const fixture = TestBed.createComponent(AnotherBatteryDialog);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const put = async (label: string, text: string): Promise<void> => {
      const named = [...root.querySelectorAll('label')].find((l) => l.textContent.includes(label))!;
      const field = named.control as HTMLInputElement | HTMLSelectElement;
      field.value = text;
      field.dispatchEvent(new Event(field instanceof HTMLSelectElement ? 'change' : 'input'));
      await fixture.whenStable();
    };
    const save = (): HTMLButtonElement => root.querySelector<HTMLButtonElement>('button[type=submit]')!;
    return { ...{ root, put, save, closed }, reported: store.selectSignal(jobFeature.selectPending) };
  }

  it('begins with the battery on record, so that its kind alone is one choice', async () => {
    const { root, put, save, closed, reported } = await show();
    expect(root.textContent).toContain('Recorded: ');
    await put('Chemistry', 'agm');
    save().click();
    expect(reported().map(({ type }) => type)).toEqual(['battery.found']);
    expect(reported()[0]!.data as unknown).toEqual({
      battery: 0,
      rating: { chemistry: 'agm', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' },
    });
    expect(closed.length).toBe(1);
  });

  it('takes no figure that no battery has, and says which', async () => {
    const { root, put, save, reported } = await show();
    await put('Capacity', '9000');
    expect(save().disabled).toBeTrue();
    expect(root.querySelector('[role=alert]')!.textContent).toContain('Capacity');
    expect(reported()).toEqual([]);
  });
});
