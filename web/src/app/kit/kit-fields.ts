import { type KitEntry, parseKitEntry } from '@voltrek/contracts';
import { CCA_STANDARDS, CHEMISTRIES } from '@voltrek/core/battery';
import { CLAMP_CONTACTS, CONDUCTORS } from '@voltrek/core/leads';
import { chargeNow, INSTRUMENT_TOOLS, type KitItem } from '@voltrek/core/sources';
import { type FieldFaults, schemaFaults } from '../shared/ui/checked-form';
import { choicesOf, plainChoices, type FormField, type FormValues } from '../shared/ui/form-field';
import { typedFigure } from '../shared/ui/typed-figure';
import { CLAMP_CONTACT_WORDS, CONDUCTOR_WORDS, NEW_KIT_NAMES, TOOL_WORDS } from '@words/kit-words';
import { CHEMISTRY_WORDS } from '@words/plan-words';
import { outOfRange } from '@words/range-words';
import { KIT_FIELDS as T } from '@words/screens/kit';

type Kind = KitItem['kind'];

const number = (key: string, label: string, unit = ''): FormField => ({ key, label, kind: 'number', unit });

/** The fields of each kind of kit, in the language in use. */
function allFields(): Readonly<Record<Kind, readonly FormField[]>> {
  const named: FormField = { key: 'name', label: T.name, kind: 'text' };
  const rating: readonly FormField[] = [
    {
      key: 'battery.chemistry',
      label: T.battery,
      kind: 'choice',
      choices: choicesOf(CHEMISTRIES, CHEMISTRY_WORDS),
    },
    number('battery.capacityAh', T.capacity, 'Ah'),
    number('battery.ccaAmps', T.ccaAmps, 'A'),
    {
      key: 'battery.ccaStandard',
      label: T.ccaStandard,
      kind: 'choice',
      choices: plainChoices(CCA_STANDARDS),
    },
  ];
  const leads: readonly FormField[] = [
    number('leads.sectionMm2', T.leadsSection, 'mm²'),
    number('leads.lengthM', T.leadsLength, 'm'),
    {
      key: 'leads.conductor',
      label: T.ofWord,
      kind: 'choice',
      choices: choicesOf(CONDUCTORS, CONDUCTOR_WORDS),
    },
    {
      key: 'leads.contact',
      label: T.clamps,
      kind: 'choice',
      choices: choicesOf(CLAMP_CONTACTS, CLAMP_CONTACT_WORDS),
    },
  ];
  const charge = (key: string): FormField => number(key, T.chargeNow, '%');
  const made = number('madeIn', T.madeIn);

  return {
    donor: [
      named,
      { key: 'modelId', label: T.donorModel, kind: 'text', most: 64 },
      { key: 'systemVolts', label: T.system, kind: 'choice', choices: plainChoices(['12', '24']), unit: 'V' },
      ...rating,
      charge('soc'),
      number('alternatorSpareAmps', T.alternatorAmps, 'A'),
    ],
    'lead-set': [named, ...leads],
    'lithium-pack': [
      named,
      number('peakAmps', T.peak, 'A'),
      number('peakSeconds', T.peakLasts, 's'),
      number('capacityAh', T.capacity12V, 'Ah'),
      charge('charge'),
      made,
      ...leads,
    ],
    'lead-pack': [
      named,
      {
        key: 'outputs',
        label: T.output,
        kind: 'choice',
        unit: 'V',
        choices: [
          { value: '12', name: '12' },
          { value: '24', name: '24' },
          { value: '12 24', name: '12, 24' },
        ],
      },
      ...rating,
      charge('soc'),
      made,
      ...leads,
    ],
    'capacitor-booster': [
      named,
      number('cells', T.cells),
      number('cellFarads', T.aCell, 'F'),
      number('cellVolts', T.aCellStands, 'V'),
      number('cellOhms', T.aCell, 'ohm'),
      number('volts', T.standsAtNow, 'V'),
      made,
      number('converterAmps', T.fillsAt, 'A'),
      ...leads,
    ],
    'spare-batteries': [
      named,
      { key: 'count', label: T.howMany, kind: 'choice', choices: plainChoices(['1', '2']) },
      ...rating,
      charge('soc'),
      made,
    ],
    'mains-charger': [
      named,
      number('amps', T.chargesWith, 'A'),
      number('volts', T.upTo, 'V'),
      number('startAmps', T.startSetting, 'A'),
      ...leads,
    ],
    'hobby-lithium': [
      named,
      number('capacityAh', T.capacity, 'Ah'),
      number('cRate', T.continuous, 'x Ah'),
      charge('charge'),
      made,
      ...leads,
    ],
    'latch-source': [named, number('volts', T.gives, 'V')],
    instrument: [
      named,
      { key: 'tool', label: T.isA, kind: 'choice', choices: choicesOf(INSTRUMENT_TOOLS, TOOL_WORDS) },
    ],
  };
}

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

/** The first values of a new piece of each kind: the usual one of the trade. */
const USUAL: Readonly<Record<Kind, FormValues>> = {
  donor: {
    modelId: 'service-van',
    systemVolts: '12',
    ...AGM,
    soc: '95',
    alternatorSpareAmps: '60',
  },
  'lead-set': COPPER,
  'lithium-pack': {
    peakAmps: '800',
    peakSeconds: '3',
    capacityAh: '',
    charge: '100',
    ...SHORT,
  },
  'lead-pack': {
    outputs: '12',
    ...AGM,
    soc: '100',
    ...SHORT,
  },
  'capacitor-booster': {
    cells: '6',
    cellFarads: '350',
    cellVolts: '2.7',
    cellOhms: '0.0003',
    volts: '14.4',
    converterAmps: '6',
    ...SHORT,
  },
  'spare-batteries': {
    count: '2',
    ...AGM,
    soc: '100',
  },
  'mains-charger': {
    amps: '15',
    volts: '14.4',
    startAmps: '',
    ...SHORT,
    'leads.sectionMm2': '6',
    'leads.lengthM': '1.8',
  },
  'hobby-lithium': {
    capacityAh: '5',
    cRate: '20',
    charge: '100',
    ...SHORT,
    'leads.sectionMm2': '10',
  },
  'latch-source': {
    volts: '9',
  },
  instrument: {
    tool: 'meter',
  },
};

export const fieldsOf = (kind: Kind): readonly FormField[] => allFields()[kind];
export const usualOf = (kind: Kind): FormValues => ({ name: NEW_KIT_NAMES[kind], ...USUAL[kind] });

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
    fieldsOf(item.kind).map(({ key }) => {
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
  for (const field of fieldsOf(kind)) {
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

/** Returns the faults of a piece as it is typed, field by field. */
export function kitFaults(kind: Kind, values: FormValues): FieldFaults {
  const fields = fieldsOf(kind);
  const shares: Record<string, string> = {};
  for (const { key, label } of fields) {
    if (!PERCENT.includes(key)) continue;
    const fault = outOfRange(label, typedFigure(values[key] ?? ''), { min: 0, max: 100, unit: '%' });
    if (fault) shares[key] = fault;
  }
  return { ...schemaFaults(fields, () => parseKitEntry(entryOf(kind, values))), ...shares };
}
