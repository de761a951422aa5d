import type { VerdictRecord } from '@voltrek/core/verdict';
import { sureWords } from './certainty-words';

const record: VerdictRecord = {
  verdict: 'replace-now',
  suspect: null,
  certainty: 'fairly-sure',
  share: 0.25,
  followUps: [],
};

describe('how sure a verdict is', () => {
  it('tells the share that it rests on', () => {
    expect(sureWords({ ...record, ground: 'load-it-now' })).toBe('Fairly sure, 25 in 100');
  });

  it('tells no share of causes beside what a test proves', () => {
    expect(sureWords({ ...record, ground: 'proved-spent' })).toBe('Fairly sure');
    expect(sureWords({ ...record, ground: 'proved-worn' })).toBe('Fairly sure');
  });
});
