import { faultAt, faultError } from '@voltrek/contracts';
import { object, number, string } from 'yup';
import { controlOf, faultsOf, formOf, keptOf, schemaFaults } from './checked-form';
import type { FormField } from './form-field';

const FIELDS: readonly FormField[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  { key: 'part.amps', label: 'Amps', kind: 'number', unit: 'A' },
];
const SCHEMA = object({
  name: string().min(3).required(),
  part: object({ amps: number().max(10).required() }),
  hidden: string().required(),
});
const parse = (values: object) => SCHEMA.validateSync(values, { abortEarly: false });

describe('a checked form', () => {
  it('puts each fault at its field, under the label that is seen, and the rest at the whole', () => {
    const faults = schemaFaults(FIELDS, () => parse({ name: 'x', part: { amps: 11 } }));
    expect(Object.keys(faults).sort()).toEqual(['', 'name', 'part.amps']);
    expect(faults['part.amps']).toMatch(/^Amps /);
    expect(faults['']).toContain('hidden');
  });

  it('puts a fault of a whole part at the first field of it', () => {
    const whole = (): never => {
      throw faultError(faultAt('part', 'battery-outside'), {});
    };
    expect(schemaFaults(FIELDS, whole)).toEqual({ 'part.amps': 'the battery lies outside the outline' });
  });

  it('lets any other error through', () => {
    const broken = (): never => {
      throw new TypeError('broken');
    };
    expect(() => schemaFaults(FIELDS, broken)).toThrowError(TypeError);
  });

  it('is valid once every fault is mended, and gives what was typed', () => {
    const form = formOf(FIELDS, { name: 'x' }, (values) =>
      schemaFaults(FIELDS, () =>
        parse({ name: values.name, hidden: 'y', part: { amps: Number(values['part.amps']) } }),
      ),
    );
    expect(Object.keys(faultsOf(form))).toEqual(['name']);
    controlOf(form, 'name')!.setValue('long enough');
    controlOf(form, 'part.amps')!.setValue('12');
    expect(Object.keys(faultsOf(form))).toEqual(['part.amps']);
    controlOf(form, 'part.amps')!.setValue('9');
    expect(form.valid).toBeTrue();
    expect(keptOf(FIELDS, form)).toEqual({ name: 'long enough', 'part.amps': '9' });
  });
});
