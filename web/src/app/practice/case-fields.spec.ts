import { ALONG_CAUSES } from '@voltrek/core/diagnosis';
import { MACHINE_CLASSES } from '@voltrek/core/machine';
import { causesOf, faultsOfWritten, type WrittenCase } from '@voltrek/core/practice';
import { BLANK_CASE, caseFaults, caseFields, caseOfValues, valuesOfCase } from './case-fields';

const WRITTEN: WrittenCase = {
  ...BLANK_CASE,
  title: 'A',
  machineClass: 'truck',
  cause: 'string-weak',
  along: 'charging',
  answers: { 'ask-noise': 'squeal' },
  tempC: -20,
  number: 8,
};

describe('a case in fields', () => {
  it('comes out of them as it went in', () => {
    const back = { ...caseOfValues(valuesOfCase(WRITTEN)), kit: WRITTEN.kit };
    expect(back).toEqual(WRITTEN);
  });

  it('keeps of another machine what that can have', () => {
    const { cause, along, answers, title, tempC } = caseOfValues({
      ...valuesOfCase({ ...WRITTEN, machineClass: 'ev' }),
    });
    expect(causesOf('ev')).toContain(cause);
    expect([along, answers, title, tempC]).toEqual([null, {}, 'A', -20]);
    for (const machineClass of MACHINE_CLASSES) {
      const now = { ...caseOfValues(valuesOfCase({ ...WRITTEN, machineClass })), kit: WRITTEN.kit };
      const told = faultsOfWritten(now).map(({ path }) => path);
      // A second fault depends on the first: the form says so, and changes nothing in silence.
      expect(told.filter((path) => path !== 'along'))
        .withContext(machineClass)
        .toEqual([]);
    }
  });

  it('asks of each machine what it can be asked, and offers nothing that it cannot have', () => {
    const keys = (of: WrittenCase['machineClass']) => caseFields(of).map(({ key }) => key);
    expect(keys('ev')).toContain('answers.ask-warned');
    expect(keys('ev')).not.toContain('answers.ask-noise');
    expect(keys('car')).toContain('answers.ask-noise');
    const along = caseFields('hybrid').find(({ key }) => key === 'along')!.choices!;
    expect(along.map(({ value }) => value)).toEqual(['', ...ALONG_CAUSES.filter((c) => c !== 'charging')]);
  });

  it('tells what is wrong at its field, a figure that is none too', () => {
    const fields = caseFields('car');
    const wrong = { ...valuesOfCase({ ...WRITTEN, machineClass: 'car', title: ' ' }), tempC: 'cold' };
    const faults = caseFaults(fields, { ...caseOfValues(wrong), kit: ['winch'] });
    expect(Object.keys(faults).sort()).toEqual(['', 'tempC', 'title']);
    expect(faults.tempC).toContain('-30');
    expect(caseOfValues({ ...wrong, tempC: '−7' }).tempC).toBe(-7);
  });
});
