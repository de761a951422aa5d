import type { BatteryChemistry, CcaStandard } from '@voltrek/core/battery';
import type { Fuel } from '@voltrek/core/engine';
import type { ClampContact, Conductor } from '@voltrek/core/leads';

/** The calculators of the bench, in the order of their list. */
export const BENCH_TOOLS = [
  'leads',
  'capacitor',
  'energy',
  'equalise',
  'charge',
  'drain',
  'soc',
  'cca',
  'freeze',
  'string',
  'revive',
] as const;
export type BenchToolId = (typeof BENCH_TOOLS)[number];

/** The name of each, its formula, and the usual mistake. */
export const BENCH_WORDS: Record<
  BenchToolId,
  { readonly name: string; readonly formula: readonly string[]; readonly slip: string }
> = {
  leads: {
    name: 'Leads',
    formula: [
      'U = I x (2 x rho x length / section + 4 x clamp)',
      'warming = I² x R x t / heat of the copper',
    ],
    slip: 'Counting one lead only: the current goes there and back. And copper-clad looks as thick but loses half as much again.',
  },
  capacitor: {
    name: 'Capacitor bank',
    formula: [
      'C bank = C / N, ESR bank = N x ESR',
      'fall = I x t / C bank + I x ESR bank',
      'energy = C bank / 2 x (V1² - V2²)',
    ],
    slip: "Quoting one cell's fall, or its farads at the bank's volts: the bank falls N times as much.",
  },
  energy: {
    name: 'Bank or battery',
    formula: [
      'bank: C / 2 x (V1² - V2²) / 3600 Wh',
      'battery: half its Ah x 12 Wh',
      'a load holds for energy / W; its mean must be put back',
    ],
    slip: 'Taking a bank for a light battery: it gives amps, not hours. As a buffer it only bridges the peaks of a load.',
  },
  equalise: {
    name: 'Equalising',
    formula: ['I = dV / R at contact', 'tau = R x C, C in series of both', 'burnt = C / 2 x dV²'],
    slip: 'Joining at unequal volts because both read "about full": only leads and ESR limit the current.',
  },
  charge: {
    name: 'Charge and drive',
    formula: [
      'hours = missing Ah x factor / A, or what the battery accepts',
      'a start takes I x t / 3600 Ah',
    ],
    slip: 'Believing that a short drive charges a flat battery: it takes what it accepts, not what the alternator has.',
  },
  drain: {
    name: 'Parked drain',
    formula: ['days = usable Ah / A / 24'],
    slip: 'Counting the whole capacity: below half charge a cold start is in doubt already.',
  },
  soc: {
    name: 'State of charge',
    formula: [
      'charge = curve of the chemistry at its temperature',
      'specific gravity + 0.004 per 6 °C above 27',
    ],
    slip: 'Reading just after running or charging: surface charge proves nothing.',
  },
  cca: {
    name: 'CCA converter',
    formula: ['SAE = amps x ratio of the standard'],
    slip: 'Comparing figures of two standards as they are printed. No conversion is exact: the tests differ.',
  },
  freeze: {
    name: 'Freezing point',
    formula: ['freezing point = table by charge: -59 °C full, -11 flat, near -1 over-discharged'],
    slip: 'Trusting a battery because it was full in autumn: a flat one freezes in an ordinary night.',
  },
  string: {
    name: '24 V string',
    formula: ['sum and difference of both batteries', 'each judged by itself above 0.2 V apart'],
    slip: 'Judging by the sum: 24.6 V can be one full battery and one dead. And never 12 V across the whole string.',
  },
  revive: {
    name: 'Revive',
    formula: ['I = dV / R, falling with tau = R x C', 'C = charge owed up to the flat line / its volts'],
    slip: 'Joining without a lamp or resistor, or reviving what is reversed, swollen or frozen.',
  },
};

export type BenchField =
  | 'sectionMm2'
  | 'lengthM'
  | 'conductor'
  | 'contact'
  | 'amps'
  | 'seconds'
  | 'tempC'
  | 'displacementL'
  | 'fuel'
  | 'cells'
  | 'cellFarads'
  | 'cellVolts'
  | 'cellMilliohms'
  | 'cellGrams'
  | 'cellMillilitres'
  | 'batteryKg'
  | 'batteryLitres'
  | 'loadWatts'
  | 'dutyPercent'
  | 'volts'
  | 'minVolts'
  | 'chargeAmps'
  | 'drainMilliamps'
  | 'highVolts'
  | 'lowVolts'
  | 'highFarads'
  | 'lowFarads'
  | 'mostAmps'
  | 'safeVolts'
  | 'leadMilliohms'
  | 'chemistry'
  | 'capacityAh'
  | 'percent'
  | 'targetPercent'
  | 'spareAmps'
  | 'method'
  | 'gravity'
  | 'standard'
  | 'ccaAmps'
  | 'firstVolts'
  | 'secondVolts'
  | 'restVolts'
  | 'healthyVolts'
  | 'senseVolts'
  | 'ohms';

export const BENCH_FIELDS: Record<BenchField, string> = {
  sectionMm2: 'section',
  lengthM: 'length, one way',
  conductor: 'material',
  contact: 'clamps',
  amps: 'current',
  seconds: 'for',
  tempC: 'temperature',
  displacementL: 'displacement',
  fuel: 'fuel',
  cells: 'cells in series',
  cellFarads: 'each cell',
  cellVolts: 'each cell stands',
  cellMilliohms: 'ESR of a cell',
  cellGrams: 'a cell weighs',
  cellMillilitres: 'a cell’s room',
  batteryKg: 'the battery weighs',
  batteryLitres: 'the battery’s room',
  loadWatts: 'load',
  dutyPercent: 'on for',
  volts: 'charged to',
  minVolts: 'used down to',
  chargeAmps: 'charger gives',
  drainMilliamps: 'drain, parked',
  highVolts: 'the fuller at',
  lowVolts: 'the emptier at',
  highFarads: 'the fuller has',
  lowFarads: 'the emptier has',
  mostAmps: 'at most',
  safeVolts: 'safe to join at',
  leadMilliohms: 'leads and ESR alone',
  chemistry: 'chemistry',
  capacityAh: 'capacity',
  percent: 'charge now',
  targetPercent: 'charge to',
  spareAmps: 'alternator spares',
  method: 'read by',
  gravity: 'specific gravity',
  standard: 'standard',
  ccaAmps: 'cold-cranking amps',
  firstVolts: 'battery 1, rest',
  secondVolts: 'battery 2, rest',
  restVolts: 'rest volts',
  healthyVolts: 'healthy battery',
  senseVolts: 'charger wants',
  ohms: 'lamp or resistor',
};

export type BenchChoice =
  | BatteryChemistry
  | Conductor
  | ClampContact
  | Fuel
  | CcaStandard
  | 'rest-volts'
  | 'hydrometer';

export const BENCH_CHOICES: Record<BenchChoice, string> = {
  flooded: 'flooded',
  efb: 'EFB',
  agm: 'AGM',
  gel: 'gel',
  lfp: 'LFP',
  copper: 'copper',
  'copper-clad-aluminium': 'copper-clad',
  clean: 'clean',
  worn: 'worn',
  poor: 'poor',
  petrol: 'petrol',
  diesel: 'diesel',
  SAE: 'SAE',
  EN: 'EN',
  DIN: 'DIN',
  IEC: 'IEC',
  JIS: 'JIS',
  'rest-volts': 'rest volts',
  hydrometer: 'hydrometer',
};

export type BenchResult =
  | 'lostVolts'
  | 'loopOhms'
  | 'riseC'
  | 'rpm'
  | 'neededRpm'
  | 'starterVolts'
  | 'bankFarads'
  | 'maxVolts'
  | 'balancedVolts'
  | 'fallCharge'
  | 'fallEsr'
  | 'cranks'
  | 'energy'
  | 'recharge'
  | 'holdUp'
  | 'firstCharge'
  | 'bankEnergy'
  | 'bankPerKg'
  | 'bankPerLitre'
  | 'batteryEnergy'
  | 'batteryPerKg'
  | 'batteryPerLitre'
  | 'lessByWeight'
  | 'bankHolds'
  | 'batteryHolds'
  | 'keepAmps'
  | 'directAmps'
  | 'resistor'
  | 'lamp'
  | 'tau'
  | 'toSafe'
  | 'burnt'
  | 'peakWatts'
  | 'hours'
  | 'accepts'
  | 'startAh'
  | 'startBack'
  | 'drive'
  | 'advice'
  | 'days'
  | 'drawJudged'
  | 'charge'
  | 'band'
  | 'freezeC'
  | 'frozen'
  | 'asSAE'
  | 'asEN'
  | 'asDIN'
  | 'asIEC'
  | 'asJIS'
  | 'sum'
  | 'difference'
  | 'battery1Charge'
  | 'battery2Charge'
  | 'alone'
  | 'helped'
  | 'contactAmps'
  | 'minutes'
  | 'refused';

export const BENCH_RESULTS: Record<BenchResult, string> = {
  lostVolts: 'lost in leads and clamps',
  loopOhms: 'the whole loop',
  riseC: 'leads warm by',
  rpm: 'this engine from a flat battery',
  neededRpm: 'it needs',
  starterVolts: 'at its starter',
  bankFarads: 'bank',
  maxVolts: 'cells equal, it stands',
  balancedVolts: 'cells 20 % apart, unbalanced',
  fallCharge: 'falls by the charge',
  fallEsr: 'and at once by ESR',
  cranks: 'whole cranks',
  energy: 'usable energy',
  recharge: 'recharge',
  holdUp: 'holds, parked',
  firstCharge: 'first charge, cell by cell',
  bankEnergy: 'bank gives',
  bankPerKg: 'bank, by weight',
  bankPerLitre: 'bank, by room',
  batteryEnergy: 'battery gives',
  batteryPerKg: 'battery, by weight',
  batteryPerLitre: 'battery, by room',
  lessByWeight: 'battery over bank, by weight',
  bankHolds: 'bank holds the load',
  batteryHolds: 'battery holds the load',
  keepAmps: 'put back on the mean',
  directAmps: 'joined directly',
  resistor: 'resistor',
  lamp: 'or a 12 V lamp up to',
  tau: 'time constant',
  toSafe: 'safe to join after',
  burnt: 'burnt on the way',
  peakWatts: 'resistor stands at first',
  hours: 'charger takes',
  accepts: 'the battery accepts now',
  startAh: 'the start took',
  startBack: 'put back in',
  drive: 'drive to the target',
  advice: 'so',
  days: 'days to flat',
  drawJudged: 'that draw is',
  charge: 'charge',
  band: 'may truly be',
  freezeC: 'freezes at',
  frozen: 'in this cold',
  asSAE: 'SAE',
  asEN: 'EN',
  asDIN: 'DIN',
  asIEC: 'IEC',
  asJIS: 'JIS',
  sum: 'sum',
  difference: 'apart by',
  battery1Charge: 'battery 1',
  battery2Charge: 'battery 2',
  alone: 'starter, no help',
  helped: 'with 12 V across the weaker',
  contactAmps: 'at contact',
  minutes: 'until the charger sees it',
  refused: 'do it?',
};

/** The process that goes on until a figure of a tool is reached: its name, its axis, and its unit. */
export type BenchPath = 'bankVolts' | 'apartVolts' | 'chargePercent' | 'flatVolts';
export const BENCH_PATHS: Record<
  BenchPath,
  { readonly name: string; readonly over: string; readonly unit: string }
> = {
  bankVolts: { name: 'bank after each crank', over: 'cranks', unit: '' },
  apartVolts: { name: 'still apart', over: 'joined for', unit: 's' },
  chargePercent: { name: 'charge', over: 'on the charger', unit: 'h' },
  flatVolts: { name: 'the flat battery', over: 'lifted for', unit: 'min' },
};

/** Single words of answers. */
export const BENCH_ANSWERS = {
  needsCharger: 'use a charger',
  driveDoes: 'the drive does it',
  normalDraw: 'normal',
  highDraw: 'too high: find it',
  mayFreeze: 'treat as frozen',
  noFreeze: 'does not freeze',
  noAcid: 'no acid to freeze',
  judgeEach: 'judge and charge each by itself',
  evenString: 'even',
  reversed: 'no: reversed',
  lithium: 'no: lithium, only its own charger',
  frozen: 'no: frozen',
  mayRevive: 'yes, then rest 24 h before trusting it',
} as const;
