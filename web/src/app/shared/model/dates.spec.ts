import { dateText, localDay } from './dates';

describe('A moment in words', () => {
  const AT = new Date(2026, 0, 5, 14, 7, 9);
  // Some locales part hours from their half of the day with a narrow space.
  const plain = (text: string): string => text.replace(/\s/g, ' ');

  it('is told as the user writes it, whatever the language of the words', () => {
    const told = (locale: string) =>
      (['time', 'dayTime', 'date'] as const).map((s) => plain(dateText(AT, s, [locale])));
    expect(told('en-GB')).toEqual(['14:07', '5 Jan, 14:07', '5 Jan 2026']);
    expect(told('en-US')).toEqual(['2:07 PM', 'Jan 5, 2:07 PM', 'Jan 5, 2026']);
    expect(told('de-DE')).toEqual(['14:07', '5. Jan., 14:07', '5. Jan. 2026']);
  });

  it('lines up the hours of a whole day, and writes those of half a day as they are said', () => {
    const early = new Date(2026, 0, 5, 2, 54);
    const told = ['en-GB', 'de-DE', 'en-US'].map((locale) => plain(dateText(early, 'dayTime', [locale])));
    expect(told).toEqual(['5 Jan, 02:54', '5. Jan., 02:54', 'Jan 5, 2:54 AM']);
  });

  it('goes by the first locale that the browser knows', () => {
    expect(plain(dateText(AT, 'date', ['en-US', 'de-DE']))).toBe('Jan 5, 2026');
    expect(plain(dateText(AT, 'date', ['de-DE', 'en-US']))).toBe('5. Jan. 2026');
  });

  it('keeps a day without a time that day, wherever one is', () => {
    expect(dateText('2026-01-05', 'date', ['en-GB'])).toBe('5 Jan 2026');
    expect(dateText('2026-01-05', 'seconds', ['en-GB'])).toBe('00:00:00');
  });

  it('takes what is kept in universal time to the clock on the wall', () => {
    expect(dateText(AT.toISOString(), 'seconds', ['en-GB'])).toBe('14:07:09');
    expect(dateText(AT.getTime(), 'time', ['en-GB'])).toBe('14:07');
  });
});

describe('localDay', () => {
  it('is the day of the clock on the wall, at both its ends', () => {
    expect(localDay(new Date(2027, 0, 5, 0, 0))).toBe('2027-01-05');
    expect(localDay(new Date(2027, 10, 30, 23, 59, 59))).toBe('2027-11-30');
  });
});
