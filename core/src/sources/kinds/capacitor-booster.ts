import { parameter } from '../../quantities/index.js';
import type { LeadSet } from '../../leads/index.js';
import { BANK_FADE_A_YEAR, leftOfRating } from '../ageing.js';
import { BANK_LEAK_A_DAY, bankAt, bankOf, type CellBank } from '../cell-bank.js';
import type { KeptCharge, KitKind } from '../kit-kind.js';
import type { SourceModel } from '../source-model.js';

export interface CapacitorBoosterKit extends CellBank, KeptCharge {
  readonly kind: 'capacitor-booster';
  readonly id: string;
  readonly name: string;
  /** Volts of the bank now. */
  readonly volts: number;
  /** Amps at its own volts that its converter lifts out of a weak casualty battery; null = charged only by itself. */
  readonly converterAmps: number | null;
  readonly leads: LeadSet;
}

/** The capacitor is judged one second into the crank: the middle of a good try. */
export const CAPACITOR_MID_CRANK_S = parameter(1, {
  id: 'capacitor.judgedAt',
  name: 'moment a bank is judged at',
  low: 0.5,
  high: 2,
  unit: 's',
  reason: 'The middle of a good try.',
});
/** The converter of a booster stops where the battery that feeds it sags under this, V. */
export const CONVERTER_LEAST_VOLTS = parameter(4, {
  id: 'capacitor.converterLeast',
  name: 'least volts a booster fills itself from',
  low: 2.5,
  high: 7,
  unit: 'V',
  reason: 'Its converter stops below; what is printed on it goes before.',
});
/** A booster's converter fills its bank to this, V: what an alternator holds a battery at. */
export const BOOSTER_FILLED_VOLTS = 14.4;
/** Share of what its converter takes that arrives in the bank. */
export const CONVERTER_EFFICIENCY = parameter(0.85, {
  id: 'capacitor.converterEfficiency',
  name: 'efficiency of its converter',
  low: 0.7,
  high: 0.93,
  unit: 'of what it takes',
  reason: 'Heavily loaded, lifting low volts.',
});
/** A bank is filled to this share of what its cells stand together: cells differ, and the smallest passes its limit first. */
const FULL_SHARE_OF_LIMIT = 0.9;

/** Volts of a full bank, V. */
const fullVoltsOf = ({ cells, cellVolts }: CellBank): number => cells * cellVolts * FULL_SHARE_OF_LIMIT;

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
 * A capacitor bank in the middle of a crank: while `I` flows the bank falls by I t / C. At the moment of judgement that equals the
 * resistance t / C. The cold thickens what its cells conduct through.
 */
export function capacitorSource(booster: CapacitorBoosterKit, tempC: number): SourceModel {
  const { farads, esrOhms, maxVolts } = bankAt(booster, tempC);
  return {
    openVolts: booster.volts,
    ohms: esrOhms + CAPACITOR_MID_CRANK_S / farads,
    capacitor: { farads, esrOhms, maxVolts },
  };
}

export const capacitorBooster = {
  charge: {
    // By its volts, since those fall with its charge.
    shareOf: (item) => item.volts / fullVoltsOf(item),
    withShare: (item, share) => ({ ...item, volts: share * fullVoltsOf(item) }),
    // Down to nothing: farads times volts, in ampere hours.
    capacityAh: (item) => ((item.cellFarads / item.cells) * fullVoltsOf(item)) / 3600,
    leftAfter: (_item, days) => (1 - BANK_LEAK_A_DAY) ** days,
    aged: (item, years) => ({
      ...item,
      cellFarads: item.cellFarads * leftOfRating(BANK_FADE_A_YEAR, years),
      cellOhms: item.cellOhms / leftOfRating(2 * BANK_FADE_A_YEAR, years),
    }),
  },
  lends: {
    fixedLeads: (item) => item.leads,
    outputs: () => [12],
    source: (item, _output, tempC) => capacitorSource(item, tempC),
    hasEngine: false,
    chargeOnly: () => false,
    acrossOne: 'any',
    charged: null,
  },
} satisfies KitKind<CapacitorBoosterKit>;
