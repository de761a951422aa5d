import { clock, percentBand, volts } from './figures';

describe('figures', () => {
  it('have fixed places and their unit', () => {
    expect(volts(11.6)).toBe('11.60 V');
    expect(volts(13.55, 1)).toBe('13.6 V');
  });

  it('show a band, or one figure when both ends round alike', () => {
    expect(percentBand(0.03, 0.09)).toBe('3-9 %');
    expect(percentBand(0.5, 0.501)).toBe('50 %');
  });

  it('count seconds as a clock that never runs below zero', () => {
    expect(clock(65)).toBe('1:05');
    expect(clock(-3)).toBe('0:00');
  });
});
