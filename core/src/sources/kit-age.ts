import { DAY_MS, type Parameter } from '../quantities/index.js';
import { BANK_FADE_A_YEAR, LEAD_FADE_A_YEAR, LITHIUM_FADE_A_YEAR, SELF_DISCHARGE_A_MONTH } from './ageing.js';
import { BANK_LEAK_A_DAY } from './cell-bank.js';
import { kindOf, type KitItem } from './kit.js';
import type { KeptCharge } from './kit-kind.js';

const YEAR_DAYS = 365.25;

/**
 * The state of a piece of kit at this moment: its charge, and its ratings by its age.
 *
 * @example kitNow({ ...pack, charge: 1, chargedAt: '2026-01-01T00:00:00.000Z' }, new Date('2026-03-02')).charge // 0.96
 */
export const kitNow = <K extends KitItem>(item: K, at: Date): K => agedKit(chargeNow(item, at), at);

/** The piece with the charge that is left since it was last known, by whole days. */
export function chargeNow<K extends KitItem>(item: K, at: Date): K {
  const { charge } = kindOf(item);
  const { chargedAt } = item as KeptCharge;
  const days = chargedAt === undefined ? 0 : Math.floor((at.getTime() - Date.parse(chargedAt)) / DAY_MS);
  return charge && days > 0
    ? charge.withShare(item, charge.shareOf(item) * charge.leftAfter(item, days))
    : item;
}

/** The piece with the ratings that its age leaves it. */
export function agedKit<K extends KitItem>(item: K, at: Date): K {
  const { charge } = kindOf(item);
  const { madeIn } = item as KeptCharge;
  const years = madeIn === undefined ? 0 : (at.getTime() - Date.UTC(madeIn, 6)) / (YEAR_DAYS * DAY_MS);
  return charge && years > 0 ? charge.aged(item, years) : item;
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
