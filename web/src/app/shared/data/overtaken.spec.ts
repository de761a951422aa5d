import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import type { CrewMember, RulesPage, Van } from '@voltrek/contracts';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { Subject } from 'rxjs';
import { Api } from './api';
import { changeKit, KitActions, kitFeature, loadKit } from './kit';
import { loadRules, RulesActions, rulesFeature, setRule } from './rules';
import { changeCrew, loadCrew, SessionActions, sessionFeature } from './session';

describe('an answer that was asked before a change', () => {
  const asked = new Map<string, Subject<unknown>>();
  let store: Store;

  beforeEach(() => {
    const ask = (what: string) => () => {
      asked.set(what, new Subject());
      return asked.get(what)!;
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(rulesFeature),
        provideState(kitFeature),
        provideState(sessionFeature),
        provideEffects({ loadRules, setRule, loadKit, changeKit, loadCrew, changeCrew }),
        {
          provide: Api,
          useValue: {
            ...{ rules: ask('rules'), setRule: ask('set rule') },
            ...{ vans: ask('vans'), addVan: ask('add van') },
            ...{ crew: ask('crew'), addCrew: ask('add crew') },
          },
        },
      ],
    });
    store = TestBed.inject(Store) as Store;
  });
  /** The change is answered first, then the older question. */
  const answer = (change: string, changed: unknown, question: string, known: unknown): void => {
    asked.get(change)!.next(changed);
    asked.get(question)!.next(known);
  };

  it('puts no house rule back', () => {
    store.dispatch(RulesActions.opened());
    const setting = { key: 'firstRed', value: 'source', by: 'crew-1' } as const;
    store.dispatch(RulesActions.set({ setting }));
    const before: RulesPage = { rules: DEFAULT_RULES, settings: [] };
    const after: RulesPage = {
      rules: { ...DEFAULT_RULES, firstRed: 'source' },
      settings: [{ ...setting, at: '2027-01-15T02:00:00.000Z' }],
    };
    answer('set rule', after, 'rules', before);
    expect(store.selectSignal(rulesFeature.selectPage)()).toEqual(after);
  });

  it('takes no van away', () => {
    store.dispatch(KitActions.opened());
    store.dispatch(KitActions.changeWanted({ change: { what: 'add-van', name: 'Van 3' } }));
    answer('add van', [{ id: 'v3' } as Van], 'vans', []);
    expect(store.selectSignal(kitFeature.selectVans)()).toEqual([{ id: 'v3' } as Van]);
  });

  it('takes nobody of the crew away', () => {
    store.dispatch(SessionActions.crewWanted());
    const member = { id: null, name: 'Wendel', role: 'technician', retired: false } as const;
    store.dispatch(SessionActions.crewChanged({ member }));
    const known: CrewMember[] = [{ ...member, id: 'crew-9' }];
    answer('add crew', known, 'crew', []);
    expect(store.selectSignal(sessionFeature.selectCrew)()).toEqual(known);
  });
});
