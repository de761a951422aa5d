import { savedText, type SavedState } from './saved-words';

describe('what is said of the taps of this device', () => {
  const at = '2027-01-15T02:41:00';
  const all: SavedState = {
    ...{ connected: true, savedAt: null, parked: 0, backlog: null, canKeep: true },
    ...{ isLookedFor: true, isShut: false },
  };
  const backlog = { taps: 3, jobs: 2, since: at };

  it('tells whether all is saved, how many wait, of how many jobs and since when', () => {
    expect(savedText(all)).toBe('all saved');
    expect(savedText({ ...all, savedAt: at })).toBe('all saved 02:41');
    expect(savedText({ ...all, backlog })).toBe('saving 3');
    expect(savedText({ ...all, connected: false, backlog })).toBe(
      'no server, 3 of 2 jobs kept here since 02:41',
    );
    expect(savedText({ ...all, connected: false, backlog: { ...backlog, taps: 1, jobs: 1 } })).toBe(
      'no server, 1 kept here since 02:41',
    );
    expect(savedText({ ...all, connected: false })).toBe('no server, 0 kept here');
  });

  it('says that all is saved, or nothing kept, only once it was looked for', () => {
    const unknown = { ...all, isLookedFor: false };
    expect(savedText(unknown)).toBe('looking what waits');
    expect(savedText({ ...unknown, savedAt: at })).toBe('looking what waits');
    expect(savedText({ ...unknown, connected: false })).toBe('no server, looking what waits');
    expect(savedText({ ...unknown, backlog })).toBe('saving 3');
  });

  it('says that somebody is to sign in where that is all that is missing, whether or not the line stands', () => {
    for (const connected of [true, false]) {
      const shut = { ...all, connected, isShut: true };
      expect(savedText({ ...shut, backlog })).toBe('not signed in, 3 of 2 jobs kept here since 02:41');
      expect(savedText(shut)).toBe('not signed in, 0 kept here');
      expect(savedText({ ...shut, canKeep: false })).toBe('no place to keep taps');
    }
  });

  it('tells of what the server would not take, and of a device that keeps nothing', () => {
    expect(savedText({ ...all, parked: 1, backlog })).toBe('not taken, 3 of 2 jobs kept here since 02:41');
    expect(savedText({ ...all, canKeep: false })).toBe('no place to keep taps');
    expect(savedText({ ...all, canKeep: false, backlog })).toBe('3 not saved, no place to keep');
  });
});
