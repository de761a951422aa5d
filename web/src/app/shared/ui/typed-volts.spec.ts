import { typedVolts } from './typed-volts';

describe('typedVolts', () => {
  it('reads digits without a point as gloves mean them', () => {
    expect(typedVolts('1162')).toBe(11.62);
    expect(typedVolts('126')).toBe(12.6);
    expect(typedVolts('962')).toBe(9.62);
    expect(typedVolts('98')).toBe(9.8);
    expect(typedVolts('12')).toBe(12);
    expect(typedVolts('2510')).toBe(25.1);
    expect(typedVolts('-1162')).toBe(-11.62);
  });

  it('takes a typed point or comma as it stands', () => {
    expect(typedVolts('11.62')).toBe(11.62);
    expect(typedVolts('9,8')).toBe(9.8);
    expect(typedVolts('.5')).toBe(0.5);
    expect(typedVolts('12.')).toBe(12);
  });

  it('is nothing for what is no figure', () => {
    for (const text of ['', '-', '.', 'abc', '12345', '1.2.3', '1e3', '--5']) {
      expect(typedVolts(text)).withContext(text).toBeNull();
    }
  });
});
