import { type KitEntry, parseKitEntry } from '@voltrek/contracts';
import { CCA_STANDARDS, CHEMISTRIES } from '@voltrek/core/battery';
import { CLAMP_CONTACTS, CONDUCTORS } from '@voltrek/core/leads';
import { chargeNow, type KitItem } from '@voltrek/core/sources';
import { type FieldFaults, schemaFaults } from '../shared/ui/checked-form';
import { choicesOf, type FormField, type FormValues } from '../shared/ui/form-field';
import { typedFigure } from '../shared/ui/typed-figure';
import { CLAMP_CONTACT_WORDS } from '@words/kit-words';
import { CHEMISTRY_WORDS } from '@words/plan-words';
import { outOfRange } from '@words/range-words';
import { KIT_FIELDS as T } from '@words/screens/kit';

type Kind = KitItem['kind'];
type FieldName = keyof typeof T;

const number = (key: string, name: FieldName, unit = ''): FormField => ({
  key,
  get label() {
    return T[name];
  },
  kind: 'number',
  unit,
});
const NAME: FormField = {
  key: 'name',
  get label() {
    return T.name;
  },
  kind: 'text',
};
const VOLTS = choicesOf(['12', '24']);
const RATING: readonly FormField[] = [
  {
    key: 'battery.chemistry',
    get label() {
      return T.battery;
    },
    kind: 'choice',
    choices: choicesOf(CHEMISTRIES, CHEMISTRY_WORDS),
  },
  number('battery.capacityAh', 'capacity', 'Ah'),
  number('battery.ccaAmps', 'ccaAmps', 'A'),
  {
    key: 'battery.ccaStandard',
    get label() {
      return T.ccaStandard;
    },
    kind: 'choice',
    choices: choicesOf(CCA_STANDARDS),
  },
];
const LEADS: readonly FormField[] = [
  number('leads.sectionMm2', 'leadsSection', 'mm²'),
  number('leads.lengthM', 'leadsLength', 'm'),
  {
    key: 'leads.conductor',
    get label() {
      return T.ofWord;
    },
    kind: 'choice',
    choices: choicesOf(CONDUCTORS, {
      get copper() {
        return T.copper;
      },
      get 'copper-clad-aluminium'() {
        return T.clad;
      },
    }),
  },
  {
    key: 'leads.contact',
    get label() {
      return T.clamps;
    },
    kind: 'choice',
    choices: choicesOf(CLAMP_CONTACTS, CLAMP_CONTACT_WORDS),
  },
];
const charge = (key: string): FormField => number(key, 'chargeNow', '%');
const MADE = number('madeIn', 'madeIn');

/** The fields of each kind of kit. */
const FIELDS: Readonly<Record<Kind, readonly FormField[]>> = {
  donor: [
    NAME,
    {
      key: 'modelId',
      get label() {
        return T.donorModel;
      },
      kind: 'text',
      most: 64,
    },
    {
      key: 'systemVolts',
      get label() {
        return T.system;
      },
      kind: 'choice',
      choices: VOLTS,
      unit: 'V',
    },
    ...RATING,
    charge('soc'),
    number('alternatorSpareAmps', 'alternatorAmps', 'A'),
  ],
  'lead-set': [NAME, ...LEADS],
  'lithium-pack': [
    NAME,
    number('peakAmps', 'peak', 'A'),
    number('peakSeconds', 'peakLasts', 's'),
    number('capacityAh', 'capacity12V', 'Ah'),
    charge('charge'),
    MADE,
    ...LEADS,
  ],
  'lead-pack': [
    NAME,
    {
      key: 'outputs',
      get label() {
        return T.output;
      },
      kind: 'choice',
      unit: 'V',
      choices: [
        { value: '12', name: '12' },
        { value: '24', name: '24' },
        { value: '12 24', name: '12, 24' },
      ],
    },
    ...RATING,
    charge('soc'),
    MADE,
    ...LEADS,
  ],
  'capacitor-booster': [
    NAME,
    number('cells', 'cells'),
    number('cellFarads', 'aCell', 'F'),
    number('cellVolts', 'aCellStands', 'V'),
    number('cellOhms', 'aCell', 'ohm'),
    number('volts', 'standsAtNow', 'V'),
    MADE,
    number('converterAmps', 'fillsAt', 'A'),
    ...LEADS,
  ],
  'spare-batteries': [
    NAME,
    {
      key: 'count',
      get label() {
        return T.howMany;
      },
      kind: 'choice',
      choices: choicesOf(['1', '2']),
    },
    ...RATING,
    charge('soc'),
    MADE,
  ],
  'mains-charger': [
    NAME,
    number('amps', 'chargesWith', 'A'),
    number('volts', 'upTo', 'V'),
    number('startAmps', 'startSetting', 'A'),
    ...LEADS,
  ],
  'hobby-lithium': [
    NAME,
    number('capacityAh', 'capacity', 'Ah'),
    number('cRate', 'continuous', 'x Ah'),
    charge('charge'),
    MADE,
    ...LEADS,
  ],
  'latch-source': [NAME, number('volts', 'gives', 'V')],
  instrument: [
    NAME,
    {
      key: 'tool',
      get label() {
        return T.isA;
      },
      kind: 'choice',
      choices: choicesOf(['meter', 'clamp-meter', 'tester', 'load-tester', 'hydrometer'], {
        get 'clamp-meter'() {
          return T.currentClamp;
        },
        get tester() {
          return T.batteryTester;
        },
        get 'load-tester'() {
          return T.loadTester;
        },
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

/** The first values of a new piece of each kind: the usual one of the trade. */
const USUAL: Readonly<Record<Kind, FormValues>> = {
  donor: {
    get name() {
      return T.serviceVan;
    },
    modelId: 'service-van',
    systemVolts: '12',
    ...AGM,
    soc: '95',
    alternatorSpareAmps: '60',
  },
  'lead-set': {
    get name() {
      return T.leadSet;
    },
    ...COPPER,
  },
  'lithium-pack': {
    get name() {
      return T.lithiumPack;
    },
    peakAmps: '800',
    peakSeconds: '3',
    capacityAh: '',
    charge: '100',
    ...SHORT,
  },
  'lead-pack': {
    get name() {
      return T.leadAcidPack;
    },
    outputs: '12',
    ...AGM,
    soc: '100',
    ...SHORT,
  },
  'capacitor-booster': {
    get name() {
      return T.capacitorBooster;
    },
    cells: '6',
    cellFarads: '350',
    cellVolts: '2.7',
    cellOhms: '0.0003',
    volts: '14.4',
    converterAmps: '6',
    ...SHORT,
  },
  'spare-batteries': {
    get name() {
      return T.spareBatteries;
    },
    count: '2',
    ...AGM,
    soc: '100',
  },
  'mains-charger': {
    get name() {
      return T.mainsCharger;
    },
    amps: '15',
    volts: '14.4',
    startAmps: '',
    ...SHORT,
    'leads.sectionMm2': '6',
    'leads.lengthM': '1.8',
  },
  'hobby-lithium': {
    get name() {
      return T.hobbyLithium;
    },
    capacityAh: '5',
    cRate: '20',
    charge: '100',
    ...SHORT,
    'leads.sectionMm2': '10',
  },
  'latch-source': {
    get name() {
      return T.latchSource;
    },
    volts: '9',
  },
  instrument: {
    get name() {
      return T.multimeter;
    },
    tool: 'meter',
  },
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

/** Returns the faults of a piece as it is typed, field by field. */
export function kitFaults(kind: Kind, values: FormValues): FieldFaults {
  const fields = FIELDS[kind];
  const shares: Record<string, string> = {};
  for (const { key, label } of fields) {
    if (!PERCENT.includes(key)) continue;
    const fault = outOfRange(label, typedFigure(values[key] ?? ''), { min: 0, max: 100, unit: '%' });
    if (fault) shares[key] = fault;
  }
  return { ...schemaFaults(fields, () => parseKitEntry(entryOf(kind, values))), ...shares };
}
