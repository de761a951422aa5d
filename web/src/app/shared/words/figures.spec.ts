import { clock, inHundred, inSentence, percentBand, volts } from './figures';

describe('figures', () => {
  it('have fixed places and their unit', () => {
    expect(volts(11.6)).toBe('11.60 V');
    expect(volts(13.55, 1)).toBe('13.6 V');
  });

  it('show a band, or one figure when both ends round alike', () => {
    expect(percentBand(0.03, 0.09)).toBe('3-9 %');
    expect(percentBand(0.5, 0.501)).toBe('50 %');
  });

  it('say odds in a hundred, never quite none and never quite sure', () => {
    expect(inHundred(0.973)).toBe('97 in 100');
    expect(inHundred(0)).toBe('under 1 in 100');
    expect(inHundred(1)).toBe('over 99 in 100');
  });

  it('count seconds as a clock that never runs below zero', () => {
    expect(clock(65)).toBe('1:05');
    expect(clock(-3)).toBe('0:00');
    expect(clock(7199)).toBe('119:59');
    expect(clock(7500)).toBe('2 h 05');
  });

  it('end a sentence with a line of its own, asked or said', () => {
    expect(inSentence('Ask: was it flat before?')).toBe('ask: was it flat before?');
    expect(inSentence('Meter from the + post to its cable')).toBe('meter from the + post to its cable.');
  });
});
