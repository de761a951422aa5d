import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { DEFAULT_RULES, HOUSE_RULE_KEYS } from '@voltrek/core/rules';
import { type Action, provideState, provideStore, ScannedActionsSubject } from '@ngrx/store';
import { Store } from '@ngrx/store';
import { rulesCopy } from '../shared/data/rules';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { RulesPageView } from './rules-page';

describe('RulesPageView', () => {
  async function show() {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(rulesCopy),
        provideState(sessionFeature),
        provideState(crewCopy),
      ],
    });
    const fixture = TestBed.createComponent(RulesPageView);
    const store = TestBed.inject(Store);
    const said: Action[] = [];
    TestBed.inject(ScannedActionsSubject).subscribe((action) => said.push(action));
    store.dispatch(
      rulesCopy.changed({
        rules: { ...DEFAULT_RULES, crankTriesMax: 3 },
        settings: [{ key: 'crankTriesMax', value: 3, by: 'crew-1', at: '2027-01-15T02:00:00.000Z' }],
      }),
    );
    await fixture.whenStable();
    const set = () =>
      said.filter((a) => a.type === rulesCopy.changeSent.type) as ReturnType<typeof rulesCopy.changeSent>[];
    return { fixture, root: fixture.nativeElement as HTMLElement, set };
  }

  it('asks every question of the house, says what differs from the default, and who set it', async () => {
    const { root } = await show();
    const rows = [...root.querySelectorAll('ul:not(.past) > li')];
    expect(rows.length).toBe(HOUSE_RULE_KEYS.length);
    const tries = rows.find((r) => r.textContent.includes('Tries before thinking again'))!;
    expect(tries.textContent).toContain('default 4 tries');
    expect(tries.querySelector('input')!.value).toBe('3');
    expect(root.querySelector('.past')!.textContent).toContain('Tries before thinking again: 3');
  });

  it('sets a school at a tap', async () => {
    const { root, set } = await show();
    const group = root.querySelector('[aria-labelledby=lastBlack]')!;
    [...group.querySelectorAll('button')].find((b) => b.textContent.includes('negative terminal'))!.click();
    expect(set().map((a) => [a.change.key, a.change.value])).toEqual([['lastBlack', 'negative-terminal']]);
  });

  it('sends a figure that is allowed, and keeps one that is not in its field with the range', async () => {
    const { root, set, fixture } = await show();
    const field = root.querySelector<HTMLInputElement>('[aria-labelledby=crankRestSeconds]')!;
    const type = async (text: string): Promise<void> => {
      field.value = text;
      field.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    await type('5');
    expect(set()).toEqual([]);
    expect(root.querySelector('[role=alert]')!.textContent).toContain(
      'Rest between tries must be between 15 and 600',
    );
    await type('90');
    expect(set().map((a) => a.change.value)).toEqual([90]);
  });
});
