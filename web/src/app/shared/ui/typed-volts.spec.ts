import { typedVolts } from './typed-volts';

describe('typedVolts', () => {
  it('reads digits without a point as gloves mean them', () => {
    expect(typedVolts('1162', 32)).toBe(11.62);
    expect(typedVolts('126', 32)).toBe(12.6);
    expect(typedVolts('962', 32)).toBe(9.62);
    expect(typedVolts('98', 32)).toBe(9.8);
    expect(typedVolts('12', 32)).toBe(12);
    expect(typedVolts('290', 16)).toBe(2.9);
    expect(typedVolts('290', 32)).toBe(29);
    expect(typedVolts('31', 16)).toBe(3.1);
    expect(typedVolts('2510', 32)).toBe(25.1);
    expect(typedVolts('-1162', 32)).toBe(-11.62);
  });

  it('takes a typed point or comma as it stands', () => {
    expect(typedVolts('11.62', 32)).toBe(11.62);
    expect(typedVolts('9,8', 32)).toBe(9.8);
    expect(typedVolts('.5', 32)).toBe(0.5);
    expect(typedVolts('12.', 32)).toBe(12);
  });

  it('is nothing for what is no figure', () => {
    for (const text of ['', '-', '.', 'abc', '12345', '1.2.3', '1e3', '--5']) {
      expect(typedVolts(text, 32)).withContext(text).toBeNull();
    }
  });
});
