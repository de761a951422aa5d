import type { CrewMember } from '@voltrek/contracts';
import { crewCopy } from '../shared/data/crew';
import { ScannedActionsSubject, type Action } from '@ngrx/store';
import { TestBed } from '@angular/core/testing';
import { partAlone } from '../../testing/part-alone';
import { CrewPart } from './crew-part';

const CREW: readonly CrewMember[] = [
  { id: 'a', name: 'Wendel', role: 'crew-lead', retired: false },
  { id: 'b', name: 'Ansel', role: 'technician', retired: true },
];

describe('CrewPart', () => {
  async function show() {
    const { fixture, root, store } = partAlone(CrewPart, {}, { crew: CREW, who: 'a' });
    const sent: unknown[] = [];
    TestBed.inject(ScannedActionsSubject).subscribe((action: Action) => {
      if (action.type === crewCopy.changeSent.type)
        sent.push((action as ReturnType<typeof crewCopy.changeSent>).change);
    });
    await fixture.whenStable();
    return { fixture, root, store, sent };
  }

  it('changes a role at a tap, and says who works here no longer', async () => {
    const { root, sent } = await show();
    const [wendel, ansel] = root.querySelectorAll('li');
    expect(ansel!.querySelector('strong')!.classList).toContain('dim');
    [...wendel!.querySelectorAll('[role=radio]')]
      .find((b) => b.getAttribute('aria-checked') === 'false')!
      .dispatchEvent(new MouseEvent('click', { bubbles: true }));
    expect(sent.length).toBe(1);
    expect(sent[0]).toEqual(jasmine.objectContaining({ id: 'a', name: 'Wendel' }));
    ansel!.querySelector<HTMLButtonElement>(':scope > button')!.click();
    expect(sent[1]).toEqual({ ...CREW[1], retired: false });
  });

  it('adds somebody by a name, and none by blanks', async () => {
    const { fixture, root, sent } = await show();
    const add = root.querySelector<HTMLButtonElement>('form button')!;
    const field = root.querySelector('input')!;
    const type = async (text: string): Promise<void> => {
      field.value = text;
      field.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    await type('   ');
    expect(add.disabled).toBeTrue();
    await type(' Orla ');
    add.click();
    await fixture.whenStable();
    expect(sent).toEqual([{ id: null, name: 'Orla', role: 'technician', retired: false }]);
    expect(field.value).toBe('');
  });

  it('shows why a change was refused', async () => {
    const { fixture, root, store } = await show();
    store.dispatch(crewCopy.failed('That name is taken.'));
    await fixture.whenStable();
    expect(root.querySelector('[role=alert]')!.textContent).toBe('That name is taken.');
  });
});
