import { BATTERY_RANGES, type BatteryRating, CCA_STANDARDS, CHEMISTRIES } from '@voltrek/core/battery';
import { outOfRange } from '@words/range-words';
import type { FieldFaults } from '../ui/checked-form';
import { choicesOf, type FormField, type FormValues, plainChoices } from '../ui/form-field';
import { typedFigure } from '../ui/typed-figure';
import { CHEMISTRY_WORDS } from '@words/plan-words';
import { BATTERY_FIELDS as T } from '@words/screens/ui';

/** Returns the fields of one battery as it is printed on its label, in the language in use. */
export const batteryFields = (): readonly FormField[] => [
  {
    key: 'rating.chemistry',
    label: T.chemistry,
    kind: 'choice',
    choices: choicesOf(CHEMISTRIES, CHEMISTRY_WORDS),
  },
  { key: 'rating.capacityAh', label: T.capacity, kind: 'number', unit: 'Ah' },
  { key: 'rating.ccaAmps', label: T.ccaAmps, kind: 'number', unit: 'A' },
  { key: 'rating.ccaStandard', label: T.ccaStandard, kind: 'choice', choices: plainChoices(CCA_STANDARDS) },
  { key: 'dateMark', label: T.dateMark, kind: 'text', most: 20 },
];

/** Returns the text that the fields begin with. */
export const batteryValues = ({
  chemistry,
  ccaStandard,
  ...figures
}: Partial<BatteryRating>): FormValues => ({
  'rating.chemistry': chemistry ?? 'flooded',
  'rating.capacityAh': String(figures.capacityAh ?? ''),
  'rating.ccaAmps': String(figures.ccaAmps ?? ''),
  'rating.ccaStandard': ccaStandard ?? 'EN',
  dateMark: '',
});

/** True of labels that say the same: a form that begins with one stays as typed when the job is folded anew. */
export const isSameLabel = (a: object | undefined, b: object | undefined): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

/** Returns the battery that was typed; NaN where nothing is. A date mark that is blank is null. */
export function typedBattery(values: FormValues): {
  readonly rating: BatteryRating;
  readonly dateMark: string | null;
} {
  return {
    rating: {
      chemistry: values['rating.chemistry'] as BatteryRating['chemistry'],
      capacityAh: typedFigure(values['rating.capacityAh'] ?? ''),
      ccaAmps: typedFigure(values['rating.ccaAmps'] ?? ''),
      ccaStandard: values['rating.ccaStandard'] as BatteryRating['ccaStandard'],
    },
    dateMark: (values.dateMark ?? '').trim() || null,
  };
}

/** Returns the reason, by field, why the typed figures can be no battery's. */
export function batteryFaults(values: FormValues): FieldFaults {
  const { capacityAh, ccaAmps } = typedBattery(values).rating;
  const faults = {
    'rating.capacityAh': outOfRange(T.capacity, capacityAh, BATTERY_RANGES.capacityAh),
    'rating.ccaAmps': outOfRange(T.ccaAmps, ccaAmps, BATTERY_RANGES.ccaAmps),
  };
  return Object.fromEntries(Object.entries(faults).flatMap(([key, text]) => (text ? [[key, text]] : [])));
}
