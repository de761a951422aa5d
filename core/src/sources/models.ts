import { interpolate, type Knots, type Parameter } from '../quantities/index.js';
import type { DonorRevsSchool } from '../rules/index.js';
import {
  batteryOhms,
  batteryOpenVolts,
  type BatteryRating,
  type BatteryState,
  restVoltsAt,
} from '../battery/index.js';
import { factorOver } from '../leads/index.js';
import { bankAt, bankOf, ESR_E_FOLD_C } from './cell-bank.js';
import type {
  CapacitorBoosterKit,
  DonorKit,
  HobbyLithiumKit,
  LeadPackKit,
  LithiumPackKit,
  MainsChargerKit,
  SpareBatteriesKit,
  TriedPack,
} from './kit.js';

/** A source as the circuit sees it: volts behind ohms. */
export interface SourceModel {
  readonly openVolts: number;
  readonly ohms: number;
  /** Present when an alternator works beside it. */
  readonly alternator?: { readonly volts: number; readonly maxAmps: number };
  /** Above this the source cannot deliver or shuts itself off. */
  readonly maxAmps?: number;
  /** Its peak lasts no longer than this. */
  readonly maxSeconds?: number;
  /** Lead-acid inside: part of its resistance is polarisation, which builds up over about a second. */
  readonly polarises?: boolean;
  /** A capacitor bank: its volts fall with the charge it gives. `ohms` then stands for both, at the moment of judgement. */
  readonly capacitor?: {
    readonly farads: number;
    readonly esrOhms: number;
    /** The volts that its cells stand together; left out where nobody said. */
    readonly maxVolts?: number;
  };
}

/** An alternator at 1,500 to 2,000 rpm lends this many times what it lends at idle: its output rises steeply with speed. */
export const RAISED_REVS_FACTOR = 1.6;
/** Regulated volts of a donor's alternator at idle. */
export const ALTERNATOR_VOLTS = 14.2;
/** A donor that has been driven here and runs has a battery this much warmer than the air, degC. */
export const DONOR_WARMER_C = 10;
/** Volts a lithium pack is pulled to by its rated peak at 25 degC; the rating means that or less. */
export const LITHIUM_PEAK_VOLTS = 8;
/** Lithium resistance grows by e per this many degC of cold. */
export const LITHIUM_E_FOLD_C = 29;
/** The capacitor is judged one second into the crank: the middle of a good try. */
export const CAPACITOR_MID_CRANK_S = 1;

const goodBattery = (soc: number, tempC: number): BatteryState => ({ soc, tempC, ageing: 1.2 });

/** A donor's battery, with its alternator beside it when its engine runs. */
export function donorSource(
  donor: DonorKit,
  engineRunning: boolean,
  tempC: number,
  revs: DonorRevsSchool = 'idle',
): SourceModel {
  const batteries = donor.systemVolts / 12;
  const batteryTempC = engineRunning ? tempC + DONOR_WARMER_C : tempC;
  return {
    ...seriesOf(donor.battery, donor.soc, batteries, batteryTempC),
    ...(engineRunning && {
      alternator: {
        volts: batteries * ALTERNATOR_VOLTS,
        maxAmps: donor.alternatorSpareAmps * (revs === 'raised' ? RAISED_REVS_FACTOR : 1),
      },
    }),
  };
}

/** A lithium pack: open volts by its charge, resistance from its peak rating and its tries, worse in the cold. */
export function lithiumSource(pack: LithiumPackKit, tempC: number): SourceModel {
  const openVolts = restVoltsAt('lfp', pack.charge, tempC);
  const ohms = ((openVolts - LITHIUM_PEAK_VOLTS) / pack.peakAmps) * Math.exp((25 - tempC) / LITHIUM_E_FOLD_C);
  return { openVolts, ohms: ohms * triedFactor(pack), maxAmps: pack.peakAmps, maxSeconds: pack.peakSeconds };
}

/** A lead-acid pack at its chosen output, as its tries have told of it. */
export function leadPackSource(pack: LeadPackKit, output: 12 | 24, tempC: number): SourceModel {
  const source = seriesOf(pack.battery, pack.soc, output / 12, tempC);
  return { ...source, ohms: source.ohms * triedFactor(pack) };
}

const triedFactor = ({ uses = [] }: TriedPack): number => factorOver(uses)?.factor ?? 1;

/** Resistance of the lead that links two spare batteries in series, ohms. */
export const LINK_LEAD_OHMS = 0.0012;

/** One spare battery, or two in series with their link lead. */
export function spareBatteriesSource(kit: SpareBatteriesKit, output: 12 | 24, tempC: number): SourceModel {
  const source = seriesOf(kit.battery, kit.soc, output / 12, tempC);
  return output === 24 ? { ...source, ohms: source.ohms + LINK_LEAD_OHMS } : source;
}

function seriesOf(battery: BatteryRating, soc: number, batteries: number, tempC: number): SourceModel {
  const state = goodBattery(soc, tempC);
  return {
    openVolts: batteries * batteryOpenVolts(battery, state),
    ohms: batteries * batteryOhms(battery, state),
    polarises: true,
  };
}

/** Behind a charger's regulation there is next to nothing: this keeps its output node from floating, ohms. */
const BEHIND_CHARGER_OHMS = 1000;

/** A mains charger: holds its volts up to its amps. With `starting` at its engine-start setting. */
export function chargerSource(charger: MainsChargerKit, starting: boolean): SourceModel {
  const maxAmps = starting ? (charger.startAmps ?? 0) : charger.amps;
  return {
    openVolts: charger.volts,
    ohms: BEHIND_CHARGER_OHMS,
    alternator: { volts: charger.volts, maxAmps },
  };
}

/** Open volts of three hobby cells in series by their charge: 12.6 V is their absolute limit. */
const HOBBY_VOLTS: Knots = [
  [0, 9.9],
  [0.2, 11.1],
  [0.8, 12],
  [1, 12.6],
];
/** Share of its volts that a hobby pack loses at its continuous amps and 25 degC. */
export const HOBBY_SAG_SHARE = 0.12;

/** A hobby lithium pack: its amps are its rate times its capacity, and no more. */
export function hobbySource(pack: HobbyLithiumKit, tempC: number): SourceModel {
  const openVolts = interpolate(HOBBY_VOLTS, pack.charge);
  const maxAmps = pack.cRate * pack.capacityAh;
  const ohms = ((openVolts * HOBBY_SAG_SHARE) / maxAmps) * Math.exp((25 - tempC) / LITHIUM_E_FOLD_C);
  return { openVolts, ohms, maxAmps };
}

/** The converter of a booster stops where the battery that feeds it sags under this, V. */
export const CONVERTER_LEAST_VOLTS = 4;
/** A booster's converter fills its bank to this, V: what an alternator holds a battery at. */
export const BOOSTER_FILLED_VOLTS = 14.4;
/** Share of what its converter takes that arrives in the bank. */
export const CONVERTER_EFFICIENCY = 0.85;

/**
 * Seconds in which a booster's converter fills it from the casualty's own weak battery. It gives constant power: its amps are rated at the
 * volts it fills to, and a bank that stands lower takes more of them. What the battery can feed it bounds that.
 *
 * @param from the weak battery: volts behind ohms
 * @returns null when it has no converter, is full, or the battery cannot feed it
 */
export function boosterFillSeconds(
  booster: CapacitorBoosterKit,
  toVolts: number,
  from: Pick<SourceModel, 'openVolts' | 'ohms'>,
): number | null {
  if (booster.converterAmps === null || booster.volts >= toVolts) return null;
  const { openVolts, ohms } = from;
  if (openVolts <= CONVERTER_LEAST_VOLTS) return null;
  // Most power comes at half the open volts, and the converter goes no lower than its least.
  const atVolts = Math.max(CONVERTER_LEAST_VOLTS, openVolts / 2);
  const feedsWatts = (CONVERTER_EFFICIENCY * atVolts * (openVolts - atVolts)) / ohms;
  const watts = Math.min(booster.converterAmps * toVolts, feedsWatts);
  return (bankOf(booster).farads * (toVolts ** 2 - booster.volts ** 2)) / 2 / watts;
}

/**
 * A capacitor bank in the middle of a crank: while `I` flows the bank falls by I t / C, which at the fixed moment of judgement acts as
 * the resistance t / C. The cold thickens what its cells conduct through.
 */
export function capacitorSource(booster: CapacitorBoosterKit, tempC: number): SourceModel {
  const { farads, esrOhms, maxVolts } = bankAt(booster, tempC);
  return {
    openVolts: booster.volts,
    ohms: esrOhms + CAPACITOR_MID_CRANK_S / farads,
    capacitor: { farads, esrOhms, maxVolts },
  };
}

/** Parameters of this file, each with its range and reason. */
export const modelsParameters = (): readonly Parameter[] => [
  {
    id: 'cable.linkLead',
    name: 'link lead of two spare batteries',
    value: LINK_LEAD_OHMS,
    low: 0.0005,
    high: 0.003,
    unit: 'ohm',
    reason: 'Half a metre of 25 mm2 with two clamps.',
  },
  {
    id: 'alternator.volts',
    name: 'regulated volts at idle',
    value: ALTERNATOR_VOLTS,
    low: 13.6,
    high: 14.8,
    unit: 'V',
    reason: 'Per 12 V of system.',
  },
  {
    id: 'donor.warmer',
    name: 'donor battery above the air',
    value: DONOR_WARMER_C,
    low: 0,
    high: 25,
    unit: 'degC',
    reason: 'It was driven here and runs.',
  },
  {
    id: 'lithium.peakVolts',
    name: 'volts at the rated peak',
    value: LITHIUM_PEAK_VOLTS,
    low: 6,
    high: 9.5,
    unit: 'V',
    reason: 'The rating means that or less.',
  },
  {
    id: 'lithium.coldFold',
    name: 'cold that multiplies its resistance by e',
    value: LITHIUM_E_FOLD_C,
    low: 25,
    high: 36,
    unit: 'degC',
    reason: 'At -20 degC three to five times its resistance at 20 degC.',
  },
  {
    id: 'hobby.sag',
    name: 'volts lost at continuous amps',
    value: HOBBY_SAG_SHARE,
    low: 0.05,
    high: 0.2,
    unit: 'of open',
    reason: 'Of a pack in good health.',
  },
  {
    id: 'capacitor.judgedAt',
    name: 'moment a bank is judged at',
    value: CAPACITOR_MID_CRANK_S,
    low: 0.5,
    high: 2,
    unit: 's',
    reason: 'The middle of a good try.',
  },
  {
    id: 'capacitor.coldFold',
    name: 'cold that multiplies its ESR by e',
    value: ESR_E_FOLD_C,
    low: 50,
    high: 120,
    unit: 'degC',
    reason: 'At -20 degC half again to two and a half times its ESR at 25 degC, by electrolyte.',
  },
  {
    id: 'capacitor.converterLeast',
    name: 'least volts a booster fills itself from',
    value: CONVERTER_LEAST_VOLTS,
    low: 2.5,
    high: 7,
    unit: 'V',
    reason: 'Its converter stops below; what is printed on it goes before.',
  },
  {
    id: 'capacitor.converterEfficiency',
    name: 'efficiency of its converter',
    value: CONVERTER_EFFICIENCY,
    low: 0.7,
    high: 0.93,
    unit: 'of what it takes',
    reason: 'Heavily loaded, lifting low volts.',
  },
  {
    id: 'donor.raised',
    name: 'what raised revs lend against idle',
    value: RAISED_REVS_FACTOR,
    low: 1.2,
    high: 2.2,
    unit: 'times',
    reason: 'An alternator gives about half of its rating at idle and most of it at 1,800 rpm.',
  },
];
