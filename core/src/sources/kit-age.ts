import type { BatteryRating, Chemistry } from '../battery/index.js';
import { DAY_MS, type Parameter } from '../quantities/index.js';
import { BANK_LEAK_A_DAY } from './cell-bank.js';
import type { KeptCharge, KitItem } from './kit.js';

const MONTH_DAYS = 30;
const YEAR_DAYS = 365.25;

/** Share of its charge that a battery at rest loses in a month at 20 degC; the cold of a van halves it for each ten degrees, which is left out. */
export const SELF_DISCHARGE_A_MONTH: Readonly<Record<Chemistry, number>> = {
  flooded: 0.05,
  efb: 0.04,
  agm: 0.025,
  gel: 0.02,
  lfp: 0.02,
  capacitor: 1 - (1 - BANK_LEAK_A_DAY) ** MONTH_DAYS,
};
/** Share of its ratings that a lead-acid battery loses in a year of readiness. */
export const LEAD_FADE_A_YEAR = 0.05;
/** Share of capacity and peak that a lithium pack loses in a year. */
export const LITHIUM_FADE_A_YEAR = 0.03;
/** Share of its farads that a bank loses in a year; its resistance grows by twice as much. */
export const BANK_FADE_A_YEAR = 0.02;
/** Less than this is not left by age alone: such a piece fails in other ways first. */
const LEAST_LEFT = 0.4;

/**
 * The state of a piece of kit at this moment: its charge, and its ratings by its age.
 *
 * @example kitNow({ ...pack, charge: 1, chargedAt: '2026-01-01T00:00:00.000Z' }, new Date('2026-03-02')).charge // 0.96
 */
export const kitNow = <K extends KitItem>(item: K, at: Date): K => agedKit(chargeNow(item, at), at) as K;

/** The piece with the charge that is left since it was last known, by whole days. */
export const chargeNow = <K extends KitItem>(item: K, at: Date): K => restedKit(item, at) as K;

function restedKit(item: KitItem, at: Date): KitItem {
  const chargedAt = (item as KeptCharge).chargedAt;
  const days = chargedAt === undefined ? 0 : Math.floor((at.getTime() - Date.parse(chargedAt)) / DAY_MS);
  if (days <= 0) return item;
  const left = (aMonth: number): number => (1 - aMonth) ** (days / MONTH_DAYS);
  switch (item.kind) {
    case 'lithium-pack':
    case 'hobby-lithium':
      return { ...item, charge: item.charge * left(SELF_DISCHARGE_A_MONTH.lfp) };
    case 'lead-pack':
    case 'spare-batteries':
      return { ...item, soc: item.soc * left(SELF_DISCHARGE_A_MONTH[item.battery.chemistry]) };
    case 'capacitor-booster':
      return { ...item, volts: item.volts * (1 - BANK_LEAK_A_DAY) ** days };
    default:
      return item;
  }
}

/** The piece with the ratings that its age leaves it. */
export function agedKit(item: KitItem, at: Date): KitItem {
  const { madeIn } = item as KeptCharge;
  const years = madeIn === undefined ? 0 : (at.getTime() - Date.UTC(madeIn, 6)) / (YEAR_DAYS * DAY_MS);
  if (years <= 0) return item;
  const left = (aYear: number): number => Math.max(LEAST_LEFT, (1 - aYear) ** years);
  const lead = left(LEAD_FADE_A_YEAR);
  const lithium = left(LITHIUM_FADE_A_YEAR);
  const worn = (battery: BatteryRating): BatteryRating => ({
    ...battery,
    capacityAh: battery.capacityAh * lead,
    ccaAmps: battery.ccaAmps * lead,
  });
  switch (item.kind) {
    case 'lithium-pack':
      return {
        ...item,
        peakAmps: item.peakAmps * lithium,
        ...(item.capacityAh !== undefined && { capacityAh: item.capacityAh * lithium }),
      };
    case 'hobby-lithium':
      return { ...item, capacityAh: item.capacityAh * lithium };
    case 'lead-pack':
    case 'spare-batteries':
      return { ...item, battery: worn(item.battery) };
    case 'capacitor-booster':
      return {
        ...item,
        cellFarads: item.cellFarads * left(BANK_FADE_A_YEAR),
        cellOhms: item.cellOhms / left(2 * BANK_FADE_A_YEAR),
      };
    default:
      return item;
  }
}

/** Parameters of this file, each with its range and reason. */
export const kitAgeParameters = (): readonly Parameter[] => [
  {
    id: 'kit.leadSelfDischarge',
    name: 'charge that an AGM battery at rest loses',
    value: SELF_DISCHARGE_A_MONTH.agm,
    low: 0.01,
    high: 0.05,
    unit: 'of it a month',
    reason: 'At 20 degC; a flooded one loses twice as much, a cold one half.',
  },
  {
    id: 'kit.lithiumSelfDischarge',
    name: 'charge that a lithium pack at rest loses',
    value: SELF_DISCHARGE_A_MONTH.lfp,
    low: 0.01,
    high: 0.05,
    unit: 'of it a month',
    reason: 'Little by itself; its guard draws the rest.',
  },
  {
    id: 'kit.bankLeak',
    name: 'volts that a charged bank of capacitors loses',
    value: BANK_LEAK_A_DAY,
    low: 0.005,
    high: 0.1,
    unit: 'of them a day',
    reason: 'Leaks through itself and its balancing: alone it runs down in days.',
  },
  {
    id: 'kit.leadFade',
    name: 'ratings that a lead-acid pack loses',
    value: LEAD_FADE_A_YEAR,
    low: 0.02,
    high: 0.12,
    unit: 'of them a year',
    reason: 'Five winters of readiness leave three quarters.',
  },
  {
    id: 'kit.lithiumFade',
    name: 'capacity and peak that a lithium pack loses',
    value: LITHIUM_FADE_A_YEAR,
    low: 0.01,
    high: 0.06,
    unit: 'of them a year',
    reason: 'Kept charged and warm it loses more, kept half full less.',
  },
  {
    id: 'kit.bankFade',
    name: 'farads that a bank of capacitors loses',
    value: BANK_FADE_A_YEAR,
    low: 0.005,
    high: 0.05,
    unit: 'of them a year',
    reason: 'Its resistance grows by twice as much.',
  },
];
