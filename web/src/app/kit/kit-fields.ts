import type { KitEntry } from '@voltrek/contracts';
import { CCA_STANDARDS, CHEMISTRIES } from '@voltrek/core/battery';
import { CLAMP_CONTACTS, CONDUCTORS } from '@voltrek/core/leads';
import { chargeNow, type KitItem } from '@voltrek/core/sources';
import { choicesOf, type FormField, type FormValues } from '../shared/ui/form-fields';
import { typedFigure } from '../shared/ui/typed-figure';
import { CHEMISTRY_WORDS } from '../shared/words/plan-words';

type Kind = KitItem['kind'];

const number = (key: string, label: string, unit = ''): FormField => ({ key, label, kind: 'number', unit });
const NAME: FormField = { key: 'name', label: 'Name', kind: 'text' };
const VOLTS = choicesOf(['12', '24']);
const RATING: readonly FormField[] = [
  {
    key: 'battery.chemistry',
    label: 'Battery',
    kind: 'choice',
    choices: choicesOf(CHEMISTRIES, CHEMISTRY_WORDS),
  },
  number('battery.capacityAh', 'Capacity', 'Ah'),
  number('battery.ccaAmps', 'Cold-cranking amps', 'A'),
  { key: 'battery.ccaStandard', label: 'By the standard', kind: 'choice', choices: choicesOf(CCA_STANDARDS) },
];
const LEADS: readonly FormField[] = [
  number('leads.sectionMm2', 'Leads, section', 'mm²'),
  number('leads.lengthM', 'Leads, length each', 'm'),
  {
    key: 'leads.conductor',
    label: 'Of',
    kind: 'choice',
    choices: choicesOf(CONDUCTORS, { 'copper-clad-aluminium': 'copper-clad aluminium' }),
  },
  { key: 'leads.contact', label: 'Clamps', kind: 'choice', choices: choicesOf(CLAMP_CONTACTS) },
];
const charge = (key: string): FormField => number(key, 'Charge now', '%');
const MADE = number('madeIn', 'Year made, if known');

/** What is asked of each kind of kit. */
const FIELDS: Readonly<Record<Kind, readonly FormField[]>> = {
  donor: [
    NAME,
    { key: 'modelId', label: 'Its model in the atlas', kind: 'text', most: 64 },
    { key: 'systemVolts', label: 'System', kind: 'choice', choices: VOLTS, unit: 'V' },
    ...RATING,
    charge('soc'),
    number('alternatorSpareAmps', 'Alternator lends at idle', 'A'),
  ],
  'lead-set': [NAME, ...LEADS],
  'lithium-pack': [
    NAME,
    number('peakAmps', 'Peak', 'A'),
    number('peakSeconds', 'Peak lasts', 's'),
    number('capacityAh', 'Holds at 12 V, if its maker says', 'Ah'),
    charge('charge'),
    MADE,
    ...LEADS,
  ],
  'lead-pack': [
    NAME,
    {
      key: 'outputs',
      label: 'Output',
      kind: 'choice',
      unit: 'V',
      choices: [
        { value: '12', name: '12' },
        { value: '24', name: '24' },
        { value: '12 24', name: '12 or 24' },
      ],
    },
    ...RATING,
    charge('soc'),
    MADE,
    ...LEADS,
  ],
  'capacitor-booster': [
    NAME,
    number('cells', 'Cells'),
    number('cellFarads', 'A cell', 'F'),
    number('cellVolts', 'A cell stands', 'V'),
    number('cellOhms', 'A cell', 'ohm'),
    number('volts', 'Stands at now', 'V'),
    MADE,
    number('converterAmps', 'Fills itself at, if it can', 'A'),
    ...LEADS,
  ],
  'spare-batteries': [
    NAME,
    { key: 'count', label: 'How many', kind: 'choice', choices: choicesOf(['1', '2']) },
    ...RATING,
    charge('soc'),
    MADE,
  ],
  'mains-charger': [
    NAME,
    number('amps', 'Charges with', 'A'),
    number('volts', 'Up to', 'V'),
    number('startAmps', 'Engine-start setting, if it has one', 'A'),
    ...LEADS,
  ],
  'hobby-lithium': [
    NAME,
    number('capacityAh', 'Capacity', 'Ah'),
    number('cRate', 'Continuous', 'times capacity'),
    charge('charge'),
    MADE,
    ...LEADS,
  ],
  'latch-source': [NAME, number('volts', 'Gives', 'V')],
  instrument: [
    NAME,
    {
      key: 'tool',
      label: 'Is a',
      kind: 'choice',
      choices: choicesOf(['meter', 'clamp-meter', 'tester', 'load-tester', 'hydrometer'], {
        'clamp-meter': 'current clamp',
        tester: 'battery tester',
        'load-tester': 'load tester',
      }),
    },
  ],
};

const COPPER = {
  'leads.sectionMm2': '25',
  'leads.lengthM': '3.5',
  'leads.conductor': 'copper',
  'leads.contact': 'clean',
};
const SHORT = { ...COPPER, 'leads.sectionMm2': '16', 'leads.lengthM': '0.6' };
const AGM = {
  'battery.chemistry': 'agm',
  'battery.capacityAh': '70',
  'battery.ccaAmps': '760',
  'battery.ccaStandard': 'EN',
};

/** What a new piece of each kind begins as: the usual one of the trade. */
const USUAL: Readonly<Record<Kind, FormValues>> = {
  donor: {
    name: 'Service van',
    modelId: 'service-van',
    systemVolts: '12',
    ...AGM,
    soc: '95',
    alternatorSpareAmps: '60',
  },
  'lead-set': { name: 'Lead set, 25 mm²', ...COPPER },
  'lithium-pack': {
    name: 'Lithium pack',
    peakAmps: '800',
    peakSeconds: '3',
    capacityAh: '',
    charge: '100',
    ...SHORT,
  },
  'lead-pack': { name: 'Lead-acid pack', outputs: '12', ...AGM, soc: '100', ...SHORT },
  'capacitor-booster': {
    name: 'Capacitor booster',
    cells: '6',
    cellFarads: '350',
    cellVolts: '2.7',
    cellOhms: '0.0003',
    volts: '14.4',
    converterAmps: '6',
    ...SHORT,
  },
  'spare-batteries': { name: 'Spare batteries', count: '2', ...AGM, soc: '100' },
  'mains-charger': {
    name: 'Mains charger',
    amps: '15',
    volts: '14.4',
    startAmps: '',
    ...SHORT,
    'leads.sectionMm2': '6',
    'leads.lengthM': '1.8',
  },
  'hobby-lithium': {
    name: 'Hobby lithium',
    capacityAh: '5',
    cRate: '20',
    charge: '100',
    ...SHORT,
    'leads.sectionMm2': '10',
  },
  'latch-source': { name: 'Latch source', volts: '9' },
  instrument: { name: 'Multimeter', tool: 'meter' },
};

export const fieldsOf = (kind: Kind): readonly FormField[] => FIELDS[kind];
export const usualOf = (kind: Kind): FormValues => USUAL[kind];

/** Shares are typed as percent, and what may be left empty is null or nothing then. */
const PERCENT: readonly string[] = ['soc', 'charge'];
const OR_NULL: readonly string[] = ['converterAmps', 'startAmps'];
/** A lithium pack's maker may say what it holds or not; anybody may know the year or not. */
const mayBeNothing = (kind: Kind, key: string): boolean =>
  key === 'madeIn' || (key === 'capacityAh' && kind === 'lithium-pack');

/** A piece of kit as its fields show it. */
export function valuesOf(item: KitItem): FormValues {
  const held = chargeNow(item, new Date()) as unknown as Readonly<Record<string, unknown>>;
  return Object.fromEntries(
    FIELDS[item.kind].map(({ key }) => {
      const [whole = '', part] = key.split('.');
      const value =
        part === undefined ? held[whole] : (held[whole] as Readonly<Record<string, unknown>>)[part];
      return [key, shownOf(whole, value as number | string | null | undefined | readonly number[])];
    }),
  );
}

function shownOf(key: string, value: number | string | null | undefined | readonly number[]): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'object') return value.join(' ');
  return PERCENT.includes(key) ? String(Math.round(Number(value) * 100)) : String(value);
}

/** The piece that was typed; what no figure can be read from is left for the checks to name. */
export function entryOf(kind: Kind, values: FormValues): KitEntry {
  const entry: Record<string, unknown> = { kind };
  for (const field of FIELDS[kind]) {
    const text = (values[field.key] ?? '').trim();
    const [key = '', part] = field.key.split('.');
    const isEmpty = text === '';
    if (isEmpty && mayBeNothing(kind, key)) continue;
    const value = key === 'outputs' ? text.split(' ').map(Number) : valueOf(field, key, text);
    if (part === undefined) entry[key] = value;
    else entry[key] = { ...(entry[key] as object), [part]: value };
  }
  return entry as unknown as KitEntry;
}

const CHOSEN_FIGURES: readonly string[] = ['systemVolts', 'count'];

function valueOf({ kind }: FormField, key: string, text: string): unknown {
  if (CHOSEN_FIGURES.includes(key)) return Number(text);
  if (kind !== 'number') return text;
  if (text === '' && OR_NULL.includes(key)) return null;
  const figure = typedFigure(text);
  return PERCENT.includes(key) ? figure / 100 : figure;
}
