import type { BatteryRating } from '../src/battery/index.js';
import type { ClampId, Terminal } from '../src/circuit/index.js';
import type { Engine } from '../src/engine/index.js';
import type { Machine, MachinePoint } from '../src/machine/index.js';
import type { KitItem } from '../src/sources/index.js';

export const FREE: Record<ClampId, Terminal | null> = {
  redCasualty: null,
  redSource: null,
  blackSource: null,
  blackCasualty: null,
};
export const JOINED: Record<ClampId, Terminal | null> = {
  redCasualty: { kind: 'plus', battery: 0 },
  redSource: { kind: 'plus', battery: 0 },
  blackSource: { kind: 'body' },
  blackCasualty: { kind: 'body' },
};

export const BATTERY_60: BatteryRating = {
  chemistry: 'flooded',
  capacityAh: 60,
  ccaAmps: 540,
  ccaStandard: 'EN',
};
export const BATTERY_95: BatteryRating = {
  chemistry: 'flooded',
  capacityAh: 95,
  ccaAmps: 800,
  ccaStandard: 'EN',
};

const at = (
  id: string,
  kind: MachinePoint['kind'],
  xMm: number,
  yMm: number,
  battery?: number,
): MachinePoint => ({ id, kind, label: id, xMm, yMm, steps: [], ...(battery !== undefined && { battery }) });

const body = {
  maker: 'Test',
  model: 'Test',
  gearbox: 'manual',
  lengthMm: 4000,
  widthMm: 1700,
  outline: [
    { xMm: 0, yMm: 0 },
    { xMm: 1700, yMm: 0 },
    { xMm: 1700, yMm: 4000 },
    { xMm: 0, yMm: 4000 },
  ],
  glass: [],
  wheels: [],
  smartAlternator: false,
  resets: [],
  cautions: [],
  side: null,
  zones: [],
  never: [],
} as const;

const front = { xMm: 100, yMm: 400, widthMm: 240, lengthMm: 180 };

/** A petrol car with its battery in front and a ground point across the bay. */
export const CAR: Machine = {
  ...body,
  id: 'car',
  machineClass: 'car',
  systemVolts: 12,
  batteries: [
    {
      rating: BATTERY_60,
      rect: front,
      place: 'front',
      closedIn: false,
      ventHose: false,
      layout: 'positive-left',
      topMm: 800,
    },
  ],
  points: [
    at('plus', 'battery-positive', 150, 490, 0),
    at('minus', 'battery-negative', 290, 490, 0),
    at('ground', 'ground-point', 1400, 500),
  ],
  engine: { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 },
};

export const EV: Machine = { ...CAR, id: 'ev', machineClass: 'ev', gearbox: 'none', engine: null };
export const MOTORCYCLE: Machine = {
  ...CAR,
  id: 'motorcycle',
  machineClass: 'motorcycle',
  engine: { fuel: 'petrol', displacementL: 0.45, cylinders: 1, systemVolts: 12 },
  batteries: [
    { ...CAR.batteries[0]!, rating: { chemistry: 'agm', capacityAh: 8, ccaAmps: 120, ccaStandard: 'SAE' } },
  ],
};

/** A 24 V truck, two batteries in a box. */
export const TRUCK: Machine = {
  ...body,
  id: 'truck',
  machineClass: 'truck',
  systemVolts: 24,
  batteries: [
    {
      rating: BATTERY_95,
      rect: front,
      place: 'box',
      closedIn: false,
      ventHose: false,
      layout: 'positive-left',
      topMm: 800,
    },
    {
      rating: BATTERY_95,
      rect: { ...front, yMm: 700 },
      place: 'box',
      closedIn: false,
      ventHose: false,
      layout: 'positive-left',
      topMm: 800,
    },
  ],
  points: [
    at('plus1', 'battery-positive', 150, 490, 0),
    at('minus1', 'battery-negative', 290, 490, 0),
    at('plus2', 'battery-positive', 150, 790, 1),
    at('minus2', 'battery-negative', 290, 790, 1),
    at('ground', 'ground-point', 1400, 1900),
  ],
  engine: { fuel: 'diesel', displacementL: 8, cylinders: 6, systemVolts: 24 },
};

const leads = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' } as const;
export const DONOR: KitItem = {
  kind: 'donor',
  id: 'donor',
  name: 'Van',
  modelId: 'car',
  systemVolts: 12,
  battery: BATTERY_95,
  soc: 0.95,
  alternatorSpareAmps: 60,
};
export const KIT: readonly KitItem[] = [
  DONOR,
  { kind: 'lead-set', id: 'heavy', name: 'Heavy', leads },
  {
    kind: 'lead-set',
    id: 'light',
    name: 'Light',
    leads: { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'worn' },
  },
  {
    kind: 'lithium-pack',
    id: 'lithium',
    name: 'Lithium',
    peakAmps: 800,
    peakSeconds: 3,
    charge: 0.8,
    leads: { ...leads, lengthM: 0.6 },
  },
  {
    kind: 'lead-pack',
    id: 'lead',
    name: 'Lead-acid',
    outputs: [12, 24],
    battery: BATTERY_60,
    soc: 0.95,
    leads: { ...leads, lengthM: 1.4 },
  },
  {
    kind: 'capacitor-booster',
    id: 'cap',
    name: 'Capacitor',
    cells: 6,
    cellFarads: 350,
    cellVolts: 2.7,
    cellOhms: 0.0003,
    volts: 14.4,
    converterAmps: 6,
    leads: { ...leads, lengthM: 0.6 },
  },
  {
    kind: 'spare-batteries',
    id: 'spares',
    name: 'Spare batteries',
    count: 2,
    battery: BATTERY_95,
    soc: 0.95,
  },
  {
    kind: 'mains-charger',
    id: 'charger',
    name: 'Charger',
    amps: 15,
    volts: 14.4,
    startAmps: null,
    leads: { ...leads, lengthM: 1.8, sectionMm2: 6 },
  },
  {
    kind: 'mains-charger',
    id: 'starter-charger',
    name: 'Charger with engine start',
    amps: 30,
    volts: 14.4,
    startAmps: 150,
    leads: { ...leads, lengthM: 2 },
  },
  {
    kind: 'hobby-lithium',
    id: 'hobby',
    name: 'Hobby pack',
    capacityAh: 5,
    cRate: 20,
    charge: 1,
    leads: { ...leads, lengthM: 0.4 },
  },
];

/** A rating by the EN standard. */
export const ratedEn = (
  chemistry: BatteryRating['chemistry'],
  capacityAh: number,
  ccaAmps: number,
): BatteryRating => ({ chemistry, capacityAh, ccaAmps, ccaStandard: 'EN' });

export const motor = (
  fuel: Engine['fuel'],
  displacementL: number,
  cylinders: number,
  systemVolts: 12 | 24 = 12,
): Engine => ({ fuel, displacementL, cylinders, systemVolts });

/** Its battery is in a room that gas does not leave. */
export const CLOSED: Machine = {
  ...CAR,
  id: 'boot',
  batteries: [{ ...CAR.batteries[0]!, closedIn: true }],
};
