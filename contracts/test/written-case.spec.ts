import type { WrittenCase } from '@voltrek/core/practice';
import { caseFileOf, readCaseFile } from '../src/written-case.js';

const WRITTEN: WrittenCase = {
  title: 'Two winters old',
  machineClass: 'van',
  tempC: -9,
  cause: 'worn',
  along: 'joint-positive',
  symptom: 'slow-crank',
  says: 'It did start yesterday.',
  answers: { 'ask-flats': 'no' },
  kit: ['heavy-leads', 'light-leads', 'donor'],
  number: 12,
};
const TEXT = caseFileOf(WRITTEN);
const faultsOf = (text: string) => {
  const read = readCaseFile(text);
  return 'faults' in read ? read.faults : [];
};
/** Lines of the file that hold this text, from 1. */
const lineWith = (part: string, text = TEXT) => text.split('\n').findIndex((line) => line.includes(part)) + 1;

describe('the file of a written case', () => {
  it('is read as it was written', () => {
    expect(readCaseFile(TEXT)).toEqual({ written: WRITTEN });
    // Line ends of another system, and no line ends at all.
    expect(readCaseFile(TEXT.replaceAll('\n', '\r\n'))).toEqual({ written: WRITTEN });
    expect(readCaseFile(JSON.stringify(JSON.parse(TEXT)))).toEqual({ written: WRITTEN });
  });

  it('is refused with the line and the reason of each fault', () => {
    const refused: readonly [string, string, string, RegExp][] = [
      ['"worn"', '"rust"', '"cause"', /^cause must be one of discharged/],
      ['"worn"', '"converter"', '"cause"', /such a machine cannot have this fault/],
      ['-9', '"cold"', '"tempC"', /^tempC must be a number/],
      ['-9', '-90', '"tempC"', /^tempC must be -30 at the least/],
      ['-9', '-9.5', '"tempC"', /^tempC must be a whole number/],
      ['"light-leads"', '"winch"', '"winch"', /^kit\[1\] must be one of donor/],
      ['"light-leads"', '"heavy-leads"', '"heavy-leads"\n', /^no such kit, or named twice/],
      ['"ask-flats": "no"', '"ask-flats": "perhaps"', '"ask-flats"', /is no answer to that question/],
      ['"ask-flats": "no"', '"ask-weather": "no"', '"ask-weather"', /nobody is asked this/],
      ['"voltrek-case"', '"other-case"', '"format"', /^format must be one of voltrek-case/],
      ['"version": 1', '"version": 2', '"version"', /^version must be one of 1/],
      ['"title": "Two winters old"', '"title": ""', '"title"', /^title is missing/],
      ['"It did start yesterday."', '"\\ud83d"', '"says"', /a sign of it is broken/],
    ];
    for (const [from, to, where, why] of refused) {
      const text = TEXT.replace(from, to);
      const [fault, ...others] = faultsOf(text);
      // The second of two alike is the one at fault.
      const line = where.endsWith('\n') ? lineWith('"light-leads"') : lineWith(where, text);
      expect(fault?.line).withContext(`${from} > ${to}`).toBe(line);
      expect(fault?.message).withContext(`${from} > ${to}`).toMatch(why);
      expect(others).withContext(`${from} > ${to}`).toEqual([]);
    }
  });

  it('tells every fault at once, in the order of its lines, and what is missing where it is missing', () => {
    const text = TEXT.replace('"tempC": -9', '"tempC": -90').replace('"donor"', '"winch"');
    expect(faultsOf(text).map(({ line }) => line)).toEqual([lineWith('"tempC"'), lineWith('"winch"', text)]);
    const without = TEXT.replace(/ {2}"symptom".*\n/, '');
    expect(faultsOf(without)).toEqual([
      { line: 1, path: 'symptom', code: 'required', params: {}, message: 'symptom is missing' },
    ]);
    expect(faultsOf(TEXT.replace('"number": 12', '"number": 12,\n  "colour": "red"'))[0]?.message).toMatch(
      /has unknown parts: colour/,
    );
  });

  it('is no case where it is no JSON, and says from which line', () => {
    const cut = TEXT.split('\n').slice(0, 5).join('\n');
    expect(faultsOf(cut)).toEqual([
      jasmine.objectContaining({ line: 5, code: 'caseNotJson', message: 'this is no JSON from here on' }),
    ]);
    expect(faultsOf(TEXT.replace('"tempC": -9,', '"tempC": -9;'))[0]?.line).toBe(lineWith('"tempC"'));
    expect(faultsOf('')[0]?.message).toMatch(/no JSON/);
    expect(faultsOf('[]')).toEqual([jasmine.objectContaining({ line: 1 })]);
    expect(faultsOf('"x".'.repeat(9000))[0]?.message).toMatch(/has more/);
  });
});
