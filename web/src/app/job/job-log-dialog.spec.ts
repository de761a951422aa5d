import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { detailOf, event, opened } from '../../testing/fixtures';
import { openedStore } from '../../testing/job-harness';
import { jobFeature } from '../shared/model/job-state';
import { JobLogDialog } from './job-log-dialog';

const reading = event('reading.taken', {
  ...{ kind: 'rest', volts: 11.9, battery: 0, tempC: -4, source: 'typed' },
} as const);
const EVENTS = [
  opened(),
  event('symptom.recorded', { symptom: 'slow-crank' }),
  reading,
  event('event.undone', { eventId: reading.id }),
];

describe('JobLogDialog', () => {
  async function show() {
    const store = openedStore(detailOf(EVENTS), [
      { provide: NgbActiveModal, useValue: { dismiss: () => undefined } },
    ]);
    const fixture = TestBed.createComponent(JobLogDialog);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const rows = (): string[] => [...root.querySelectorAll('li')].map((li) => li.textContent.trim());
    const button = (name: string): HTMLButtonElement =>
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!;
    const tap = async (name: string): Promise<void> => {
      button(name).click();
      await fixture.whenStable();
    };
    return {
      ...{ fixture, root, rows, button, tap },
      reported: store.selectSignal(jobFeature.selectPending),
      refresh: () => fixture.whenStable(),
    };
  }

  it('tells what was done, newest first, and keeps what was taken back visible as such', async () => {
    const { rows, root } = await show();
    expect(rows().length).toBe(3);
    expect(rows()[0]).toContain('11.90 V');
    expect(rows()[0]).toContain('taken back');
    expect(root.querySelectorAll('.back').length).toBe(1);
    expect(rows()[1]).toContain('slow crank');
  });

  it('shows one kind alone', async () => {
    const { rows, tap } = await show();
    await tap('notes and photos');
    expect(rows()).toEqual(['Nothing yet.']);
    await tap('hands and tries');
    expect(rows().length).toBe(1);
  });

  it('adds a note, and none of blanks alone', async () => {
    const { root, reported, refresh, button, tap } = await show();
    const field = root.querySelector('input')!;
    const type = async (text: string): Promise<void> => {
      field.value = text;
      field.dispatchEvent(new Event('input'));
      await refresh();
    };
    await type('   ');
    expect(button('Add note').disabled).toBeTrue();
    await type(' clamp was loose on the plus ');
    await tap('Add note');
    expect(reported().map(({ type: of, data }) => [of, data])).toEqual([
      ['note.added', { text: 'clamp was loose on the plus' }],
    ]);
    expect(field.value).toBe('');
  });
});
