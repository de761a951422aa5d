import type { CrewMember } from '@voltrek/contracts';
import type { Cause } from '@voltrek/core/diagnosis';
import type { KitItem } from '@voltrek/core/sources';

/** Tarn Vale Roadside: four people. */
export const CREW: readonly CrewMember[] = [
  { id: 'crew-1', name: 'Brannoch', role: 'crew-lead', retired: false },
  { id: 'crew-2', name: 'Tamsel', role: 'technician', retired: false },
  { id: 'crew-3', name: 'Isk', role: 'technician', retired: false },
  { id: 'crew-4', name: 'Orrin', role: 'apprentice', retired: false },
];

const heavyLeads: KitItem = {
  kind: 'lead-set',
  id: 'leads-heavy',
  name: 'Heavy set, 25 mm²',
  leads: { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' },
};
const lightLeads: KitItem = {
  kind: 'lead-set',
  id: 'leads-light',
  name: 'Light set, 10 mm²',
  leads: { sectionMm2: 10, lengthM: 3, conductor: 'copper-clad-aluminium', contact: 'worn' },
};
const packLeads = { sectionMm2: 16, lengthM: 0.6, conductor: 'copper', contact: 'clean' } as const;

/** What each van carries. */
export const VANS: readonly {
  readonly id: string;
  readonly name: string;
  readonly kit: readonly KitItem[];
}[] = [
  {
    id: 'van-1',
    name: 'Van 1, Lantern',
    kit: [
      {
        kind: 'donor',
        id: 'donor-van-1',
        name: 'Service van',
        modelId: 'service-van',
        systemVolts: 12,
        battery: { chemistry: 'agm', capacityAh: 95, ccaAmps: 850, ccaStandard: 'EN' },
        soc: 0.95,
        alternatorSpareAmps: 60,
      },
      heavyLeads,
      lightLeads,
      {
        kind: 'lithium-pack',
        id: 'pack-lithium',
        name: 'Lithium pack, 800 A peak',
        peakAmps: 800,
        peakSeconds: 3,
        charge: 0.85,
        leads: packLeads,
      },
      {
        kind: 'lead-pack',
        id: 'pack-lead',
        name: 'Lead-acid pack',
        outputs: [12, 24],
        battery: { chemistry: 'agm', capacityAh: 44, ccaAmps: 700, ccaStandard: 'SAE' },
        soc: 0.95,
        leads: { ...packLeads, lengthM: 1.4, sectionMm2: 25 },
      },
      {
        kind: 'capacitor-booster',
        id: 'booster-cap',
        name: 'Capacitor booster, 6 x 350 F',
        cells: 6,
        cellFarads: 350,
        cellVolts: 2.7,
        cellOhms: 0.0003,
        volts: 14.4,
        converterAmps: 6,
        leads: packLeads,
      },
      {
        kind: 'spare-batteries',
        id: 'spare-batteries',
        name: 'Spare batteries, 70 Ah',
        count: 2,
        battery: { chemistry: 'agm', capacityAh: 70, ccaAmps: 760, ccaStandard: 'EN' },
        soc: 0.92,
      },
      {
        kind: 'mains-charger',
        id: 'charger-15',
        name: 'Mains charger, 15 A',
        amps: 15,
        volts: 14.4,
        startAmps: null,
        leads: { sectionMm2: 6, lengthM: 1.8, conductor: 'copper', contact: 'clean' },
      },
      { kind: 'latch-source', id: 'latch-9v', name: 'Latch source, 9 V', volts: 9 },
      { kind: 'instrument', id: 'meter-1', name: 'Multimeter', tool: 'meter' },
      { kind: 'instrument', id: 'clamp-meter-1', name: 'Current clamp', tool: 'clamp-meter' },
      { kind: 'instrument', id: 'tester-1', name: 'Battery tester', tool: 'tester' },
      { kind: 'instrument', id: 'load-tester-1', name: 'Load tester, 500 A', tool: 'load-tester' },
      { kind: 'instrument', id: 'hydrometer-1', name: 'Hydrometer', tool: 'hydrometer' },
    ],
  },
  {
    id: 'van-2',
    name: 'Van 2, Heron',
    kit: [
      {
        kind: 'donor',
        id: 'donor-van-2',
        name: 'Service van',
        modelId: 'service-van',
        systemVolts: 12,
        battery: { chemistry: 'agm', capacityAh: 95, ccaAmps: 850, ccaStandard: 'EN' },
        soc: 0.9,
        alternatorSpareAmps: 60,
      },
      {
        ...heavyLeads,
        id: 'leads-long',
        name: 'Long set, 50 mm²',
        leads: { ...heavyLeads.leads, sectionMm2: 50, lengthM: 4.5 },
      },
      {
        kind: 'lithium-pack',
        id: 'pack-lithium-2',
        name: 'Lithium pack, 500 A peak',
        peakAmps: 500,
        peakSeconds: 2,
        charge: 0.6,
        leads: packLeads,
      },
      {
        kind: 'mains-charger',
        id: 'charger-start',
        name: 'Mains charger with engine start',
        amps: 30,
        volts: 14.4,
        startAmps: 150,
        leads: { sectionMm2: 16, lengthM: 2, conductor: 'copper', contact: 'worn' },
      },
      {
        kind: 'hobby-lithium',
        id: 'hobby-pack',
        name: 'Hobby lithium, 5 Ah 20C',
        capacityAh: 5,
        cRate: 20,
        charge: 1,
        leads: { sectionMm2: 10, lengthM: 0.4, conductor: 'copper', contact: 'clean' },
      },
    ],
  },
];

/** A call of the demo night, timed against the moment the data is loaded. */
export interface DemoCall {
  readonly minutesAgo: number;
  readonly title: string;
  readonly placeName: string;
  readonly said: string;
  readonly modelId: string;
  /** Which of the demo's vehicles of that model: `a` or `b`. */
  readonly which: 'a' | 'b';
  readonly ambientC: number;
  readonly urgent: boolean;
  /** What is really wrong: what the stand-in instruments show. */
  readonly truth: Cause;
}

/** The night before the Lantern Fair at Skerrow Head, in snow showers. */
export const TONIGHT: readonly DemoCall[] = [
  {
    minutesAgo: 52,
    title: 'Start-stop hatchback',
    placeName: 'Gravel pit car park, row C',
    said: 'Clicks fast and the dash goes dim. Parked since noon with the cool box on.',
    modelId: 'ardwen-solace',
    which: 'a',
    ambientC: -4,
    urgent: false,
    truth: 'left-on',
  },
  {
    minutesAgo: 44,
    title: 'Bread van, Pellow bakery',
    placeName: 'Gravel pit car park, gate',
    said: 'Turns slowly, then stops. Rolls are due at the fair by five.',
    modelId: 'brinmoor-carrow-22d',
    which: 'a',
    ambientC: -4,
    urgent: true,
    truth: 'worn',
  },
  {
    minutesAgo: 39,
    title: 'Piste machine',
    placeName: 'Skerrow Head, lantern slope',
    said: 'Lamps are bright, starter only groans. One battery was replaced last week.',
    modelId: 'hulvane-cornice-9',
    which: 'a',
    ambientC: -9,
    urgent: true,
    truth: 'string-weak',
  },
  {
    minutesAgo: 35,
    title: 'Parcel EV, will not open',
    placeName: 'Ferry ramp, lane 2',
    said: 'Dead. No doors, no lamps. It blocks the ramp.',
    modelId: 'kestow-parcel-e',
    which: 'a',
    ambientC: -2,
    urgent: true,
    truth: 'discharged',
  },
  {
    minutesAgo: 31,
    title: 'Choir minibus, hybrid',
    placeName: 'Chapel hall yard',
    said: 'Doors open, nothing lights up when I press start.',
    modelId: 'tolsey-conflux',
    which: 'a',
    ambientC: -3,
    urgent: false,
    truth: 'worn',
  },
  {
    minutesAgo: 26,
    title: 'Hatchback, front bay',
    placeName: 'Verge above the weir',
    said: 'One click and nothing. Radio was on while I waited.',
    modelId: 'brinmoor-pella',
    which: 'a',
    ambientC: -5,
    urgent: false,
    truth: 'left-on',
  },
  {
    minutesAgo: 22,
    title: 'Trail motorcycle, course marshal',
    placeName: 'Quarry track, post 4',
    said: 'Starter relay chatters. Heated grips were on all day.',
    modelId: 'ostrel-fell-450',
    which: 'a',
    ambientC: -5,
    urgent: false,
    truth: 'left-on',
  },
  {
    minutesAgo: 17,
    title: 'Snow sweeper, fair ground',
    placeName: 'Lantern field, shed',
    said: 'Stood for weeks. Not a sound. Battery feels odd.',
    modelId: 'tolsey-verge-16',
    which: 'a',
    ambientC: -8,
    urgent: false,
    truth: 'sulphated',
  },
  {
    minutesAgo: 12,
    title: 'Stage generator',
    placeName: 'Lantern field, main stage',
    said: 'Panel lights, starter turns a little, then the panel resets.',
    modelId: 'skarnby-lumen-60',
    which: 'a',
    ambientC: -6,
    urgent: false,
    truth: 'joint-negative',
  },
  {
    minutesAgo: 8,
    title: 'Refrigerated truck',
    placeName: 'Fish quay, bay 3',
    said: 'Fridge ran all night with the engine off. Now both are off.',
    modelId: 'orrendal-boreal-12',
    which: 'a',
    ambientC: -3,
    urgent: false,
    truth: 'left-on',
  },
  {
    minutesAgo: 5,
    title: 'Orchard frost fan',
    placeName: 'Underwood orchard, battery 7',
    said: 'Frost alarm is on and the fan will not start by itself.',
    modelId: 'skarnby-orchard-fan',
    which: 'a',
    ambientC: -4,
    urgent: false,
    truth: 'charging',
  },
  {
    minutesAgo: 3,
    title: 'Harbour dinghy engine',
    placeName: 'Inner harbour, slip',
    said: 'Cranked it flat trying. Smells of petrol a bit.',
    modelId: 'wendry-harbour-40',
    which: 'a',
    ambientC: -2,
    urgent: false,
    truth: 'discharged',
  },
];
