import type { Way } from '@voltrek/core/plan';
import { minutesWords, noSourceWords, wayName, wayStepWords } from './way-words';

const way = (more: Partial<Way>): Way => ({
  id: 'van',
  optionId: 'van',
  thenOptionId: null,
  kind: 'join',
  mends: false,
  points: [],
  ...more,
});
const nameOf = (id: string): string =>
  ({ van: 'Service van', pack: 'Lithium pack', spare: 'Spare battery' })[id] ?? id;

describe('ways in words', () => {
  it('names what is joined, what follows it, and what is mended first', () => {
    expect(wayName(way({}), nameOf)).toBe('Service van');
    expect(wayName(way({ mends: true }), nameOf)).toBe('Mend the joint, then service van');
    expect(wayName(way({ kind: 'charge-then-join', thenOptionId: 'pack' }), nameOf)).toBe(
      'Service van charges, then lithium pack',
    );
    expect(wayName(way({ id: 'swap:spare', kind: 'swap', optionId: null }), nameOf)).toBe(
      'Fit a spare: spare battery',
    );
  });

  it('names what is clamped on only where there is more than one', () => {
    const join = { kind: 'join', optionId: 'pack', minutes: 2 } as const;
    expect(wayStepWords(join, way({}), nameOf)).toBe('clamp on');
    expect(wayStepWords(join, way({ thenOptionId: 'pack' }), nameOf)).toBe('clamp on lithium pack');
    expect(wayStepWords({ kind: 'charge', optionId: 'van', minutes: 5 }, way({}), nameOf)).toBe(
      'it charges 5 min',
    );
  });

  it('tells long minutes in hours', () => {
    expect([2.5, 45, 119, 150].map(minutesWords)).toEqual(['3 min', '45 min', '119 min', '2.5 h']);
  });

  it('say that no source may start it, with the likeliest reason, once that is worth a line', () => {
    const causes = [
      { cause: 'starter', share: 0.6 },
      { cause: 'fuel', share: 0.4 },
    ] as const;
    expect(noSourceWords({ share: 0.07, causes })).toBe(
      'That no source starts it: 7 in 100. Most likely starter or solenoid.',
    );
    expect(noSourceWords({ share: 0.04, causes })).toBeNull();
    expect(noSourceWords({ share: 0, causes: [] })).toBeNull();
  });
});
