import type { AtlasEntry } from '@voltrek/contracts';
import type { Action } from '@ngrx/store';
import { CAR } from '../../../testing/fixtures';
import { AtlasActions, atlasFeature } from './atlas';

const entry = (id: string, revision: number): AtlasEntry => ({
  machine: { ...CAR, id },
  confidence: 'maker',
  revision,
  history: [],
  photos: [],
});
const loaded = (id: string, revision: number): Action =>
  AtlasActions.entryLoaded({ entry: entry(id, revision) });
const chosen = (modelId: string): Action => AtlasActions.chosen({ modelId });

/** The entries on screen after all of these. */
function shown(...actions: readonly Action[]): string | null {
  const start = atlasFeature.reducer(undefined, { type: 'start' });
  const { entry: last } = actions.reduce(atlasFeature.reducer, start);
  return last && `${last.machine.id} ${last.revision}`;
}

describe('the entry that is looked at', () => {
  it('is the one that was chosen last, whatever comes late', () => {
    expect(shown(chosen('a'), loaded('a', 1))).toBe('a 1');
    expect(shown(chosen('a'), loaded('a', 1), chosen('b'))).toBeNull();
    expect(shown(chosen('a'), loaded('a', 1), chosen('b'), loaded('b', 4))).toBe('b 4');
    // A correction, or a photo, of the machine that was left is answered.
    expect(shown(chosen('a'), loaded('a', 1), chosen('b'), loaded('b', 4), loaded('a', 2))).toBe('b 4');
    expect(shown(chosen('a'), loaded('a', 1), chosen('b'), loaded('a', 2), loaded('b', 4))).toBe('b 4');
  });

  it('never goes back behind a change that has come', () => {
    expect(shown(chosen('a'), loaded('a', 2), loaded('a', 1))).toBe('a 2');
    expect(shown(chosen('a'), loaded('a', 2), loaded('a', 3))).toBe('a 3');
    expect(shown(chosen('a'), loaded('a', 2), chosen('a')))
      .withContext('tapped again')
      .toBe('a 2');
  });
});
