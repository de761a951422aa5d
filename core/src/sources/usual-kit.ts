import type { KitItem } from './kit.js';

/** A piece of kit that has no place in a van yet. */
export type KitWithoutId = KitItem extends infer K ? (K extends KitItem ? Omit<K, 'id'> : never) : never;

const copper = { conductor: 'copper', contact: 'clean' } as const;

const ENTRIES: Readonly<Record<string, KitWithoutId>> = {
  'heavy-leads': {
    kind: 'lead-set',
    name: 'Heavy set, 25 mm²',
    leads: { ...copper, sectionMm2: 25, lengthM: 3.5 },
  },
  'light-leads': {
    kind: 'lead-set',
    name: 'Light set, 10 mm²',
    leads: { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'clean' },
  },
  'lithium-pack': {
    kind: 'lithium-pack',
    name: 'Lithium pack, 800 A peak',
    peakAmps: 800,
    peakSeconds: 3,
    charge: 1,
    leads: { ...copper, sectionMm2: 16, lengthM: 0.6 },
  },
  'lead-pack': {
    kind: 'lead-pack',
    name: 'Lead-acid pack, 12 and 24 V',
    outputs: [12, 24],
    battery: { chemistry: 'agm', capacityAh: 44, ccaAmps: 700, ccaStandard: 'SAE' },
    soc: 1,
    leads: { ...copper, sectionMm2: 25, lengthM: 1.4 },
  },
  'capacitor-booster': {
    kind: 'capacitor-booster',
    name: 'Capacitor booster, 6 x 350 F',
    cells: 6,
    cellFarads: 350,
    cellVolts: 2.7,
    cellOhms: 0.0003,
    volts: 14.4,
    converterAmps: 6,
    leads: { ...copper, sectionMm2: 16, lengthM: 0.6 },
  },
  'spare-batteries': {
    kind: 'spare-batteries',
    name: 'Spare batteries, 70 Ah',
    count: 2,
    battery: { chemistry: 'agm', capacityAh: 70, ccaAmps: 760, ccaStandard: 'EN' },
    soc: 1,
  },
  charger: {
    kind: 'mains-charger',
    name: 'Mains charger, 15 A',
    amps: 15,
    volts: 14.4,
    startAmps: null,
    leads: { ...copper, sectionMm2: 6, lengthM: 1.8 },
  },
  'latch-source': { kind: 'latch-source', name: 'Latch source, 9 V', volts: 9 },
  meter: { kind: 'instrument', name: 'Multimeter', tool: 'meter' },
  'clamp-meter': { kind: 'instrument', name: 'Current clamp', tool: 'clamp-meter' },
  tester: { kind: 'instrument', name: 'Battery tester', tool: 'tester' },
  'load-tester': { kind: 'instrument', name: 'Load tester', tool: 'load-tester' },
  hydrometer: { kind: 'instrument', name: 'Hydrometer', tool: 'hydrometer' },
};

/** Kit of most vans, by id: set-up offers it, the house corrects it afterwards, and Practice works with it. */
export const USUAL_KIT: Readonly<Record<string, KitItem>> = Object.fromEntries(
  Object.entries(ENTRIES).map(([id, item]) => [id, { ...item, id } as KitItem]),
);
