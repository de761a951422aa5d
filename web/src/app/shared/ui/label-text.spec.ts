import { batteryNamedBy } from './label-text';

describe('The text of a label', () => {
  it('names a battery by the address of its record or by its code', () => {
    expect(batteryNamedBy('https://van.example:8080/battery/3f2a-7c')).toBe('3f2a-7c');
    expect(batteryNamedBy('http://localhost/battery/bat_1\n')).toBe('bat_1');
    expect(batteryNamedBy('k7m 2px')).toBe('K7M2PX');
  });

  it('names none by any other address or text', () => {
    for (const text of [
      'https://van.example/vehicle/3f2a',
      'https://van.example/battery/',
      'https://van.example/battery/../rules',
      'https://van.example/battery/a?b',
      'javascript:/battery/a',
      'BEGIN:VCARD',
      '',
    ])
      expect(batteryNamedBy(text)).withContext(text).toBeNull();
  });
});
