import { FormControl, FormRecord } from '@angular/forms';
import { faultsIn, ValidationError } from '@voltrek/contracts';
import { fromShownUnit, inShownUnit } from '@words/units';
import type { FormField, FormValues } from './form-field';
import { faultLine, faultText } from '@words/fault-words';

/** The faults, by the key of the field each stands at; '' for the whole. Empty when it can be kept. */
export type FieldFaults = Readonly<Record<string, string>>;

/** Text fields by their keys, checked as a whole. Controls hold what is seen, in the units that are shown. */
export type FieldsForm = FormRecord<FormControl<string>>;

/**
 * A form of the fields given, checked as a whole at each change.
 *
 * @param values what the fields begin with, in the units that are kept
 * @param check tells what is wrong of values in the units that are kept
 * @example
 * const form = formOf(fields, usual, (values) => schemaFaults(fields, () => parseKitEntry(entryOf(values))));
 */
export function formOf(
  fields: readonly FormField[],
  values: FormValues,
  check: (values: FormValues) => FieldFaults,
): FieldsForm {
  const form: FieldsForm = new FormRecord(
    Object.fromEntries(
      fields.map(({ key, unit = '' }) => [
        nameOf(key),
        new FormControl(inShownUnit(values[key] ?? '', unit), { nonNullable: true }),
      ]),
    ),
  );
  form.addValidators(() => {
    const faults = check(keptOf(fields, form));
    return Object.keys(faults).length > 0 ? { faults } : null;
  });
  form.updateValueAndValidity();
  return form;
}

/** A form's own names have no dots. */
const nameOf = (key: string): string => key.replaceAll('.', '/');

/** The control of a field; undefined where the form has none. */
export const controlOf = (form: FieldsForm, key: string): FormControl<string> | undefined =>
  form.controls[nameOf(key)];

/** Puts a control for a field into a form where it has none, and gives it. */
export function controlIn(form: FieldsForm, key: string, begin: string): FormControl<string> {
  const control = controlOf(form, key) ?? new FormControl(begin, { nonNullable: true });
  if (!form.contains(nameOf(key))) form.addControl(nameOf(key), control, { emitEvent: false });
  return control;
}

/** The typed values, in the units that are kept. */
export const keptOf = (fields: readonly FormField[], form: FieldsForm): FormValues =>
  Object.fromEntries(
    fields.map(({ key, unit = '' }) => [key, fromShownUnit(controlOf(form, key)?.value ?? '', unit)]),
  );

/** The faults of the last check of a form. */
export const faultsOf = ({ errors }: Pick<FieldsForm, 'errors'>): FieldFaults =>
  (errors?.faults as FieldFaults | undefined) ?? {};

/** Returns the faults by a schema of contracts, each at its field and under the label that is seen. */
export function schemaFaults(
  fields: readonly Pick<FormField, 'key' | 'label'>[],
  parse: () => unknown,
): FieldFaults {
  try {
    parse();
    return {};
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const found: Record<string, string> = {};
    for (const fault of faultsIn(error)) {
      const { path } = fault;
      // A fault of a whole part stands at the first field of that part.
      const field =
        fields.find(({ key }) => key === path) ??
        (path && fields.find(({ key }) => key.startsWith(`${path}.`)));
      if (field) found[field.key] ??= faultText(fault, path === field.key ? field.label : path);
      // A fault that no field shows stands at the whole, with its place.
      else found[''] = [found[''], faultLine(fault)].filter(Boolean).join('. ');
    }
    return found;
  }
}
