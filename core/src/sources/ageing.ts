import { parameter } from '../quantities/index.js';
import type { Chemistry } from '../battery/index.js';
import { BANK_LEAK_A_DAY } from './cell-bank.js';

const MONTH_DAYS = 30;

/** Share of its charge that a battery at rest loses in a month at 20 degC; the cold of a van halves it for each ten degrees, which is left out. */
export const SELF_DISCHARGE_A_MONTH: Readonly<Record<Chemistry, number>> = {
  flooded: 0.05,
  efb: 0.04,
  agm: parameter(0.025, {
    id: 'kit.leadSelfDischarge',
    name: 'charge that an AGM battery at rest loses',
    low: 0.01,
    high: 0.05,
    unit: 'of it a month',
    reason: 'At 20 degC; a flooded one loses twice as much, a cold one half.',
  }),
  gel: 0.02,
  lfp: parameter(0.02, {
    id: 'kit.lithiumSelfDischarge',
    name: 'charge that a lithium pack at rest loses',
    low: 0.01,
    high: 0.05,
    unit: 'of it a month',
    reason: 'Little by itself; its guard draws the rest.',
  }),
  capacitor: 1 - (1 - BANK_LEAK_A_DAY) ** MONTH_DAYS,
};
/** Share of its ratings that a lead-acid battery loses in a year of readiness. */
export const LEAD_FADE_A_YEAR = parameter(0.05, {
  id: 'kit.leadFade',
  name: 'ratings that a lead-acid pack loses',
  low: 0.02,
  high: 0.12,
  unit: 'of them a year',
  reason: 'Five winters of readiness leave three quarters.',
});
/** Share of capacity and peak that a lithium pack loses in a year. */
export const LITHIUM_FADE_A_YEAR = parameter(0.03, {
  id: 'kit.lithiumFade',
  name: 'capacity and peak that a lithium pack loses',
  low: 0.01,
  high: 0.06,
  unit: 'of them a year',
  reason: 'Kept charged and warm it loses more, kept half full less.',
});
/** Share of its farads that a bank loses in a year; its resistance grows by twice as much. */
export const BANK_FADE_A_YEAR = parameter(0.02, {
  id: 'kit.bankFade',
  name: 'farads that a bank of capacitors loses',
  low: 0.005,
  high: 0.05,
  unit: 'of them a year',
  reason: 'Its resistance grows by twice as much.',
});
/** Less than this is not left by age alone: such a piece fails in other ways first. */
const LEAST_LEFT = 0.4;

/** Share of its charge that a battery of this chemistry keeps over so many days at rest. */
export const keptCharge = (chemistry: Chemistry, days: number): number =>
  (1 - SELF_DISCHARGE_A_MONTH[chemistry]) ** (days / MONTH_DAYS);

/** Share of a rating that is left after so many years, where this share of it goes in each. */
export const leftOfRating = (lostAYear: number, years: number): number =>
  Math.max(LEAST_LEFT, (1 - lostAYear) ** years);
