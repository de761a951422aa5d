import type { BatteryRating, Chemistry } from '../battery/index.js';
import { HOURS_A_DAY, parameter } from '../quantities/index.js';
import { BANK_LEAK_A_DAY } from '../sources/index.js';
import { BANK_LEAST_SOC } from './charge-time.js';
import { MAINTAIN_AMPS } from './charger.js';

/** Volts that a 12 V battery may be held at for months by chemistry: less lets it sulphate, more dries it out or ages it. */
export const FLOAT_VOLTS: Record<Chemistry, { readonly least: number; readonly most: number }> = {
  flooded: { least: 13.2, most: 13.6 },
  efb: { least: 13.2, most: 13.6 },
  agm: { least: 13.4, most: 13.8 },
  gel: { least: 13.5, most: 13.8 },
  lfp: { least: 13.3, most: 13.6 },
  capacitor: { least: 13, most: 14.8 },
};
/** A machine that sleeps draws about this where nobody has measured it, A: half of what still counts as normal. */
export const SLEEP_AMPS = parameter(0.025, {
  id: 'maintainer.sleep',
  name: 'a machine asleep draws',
  low: 0.01,
  high: 0.05,
  unit: 'A',
  reason: 'Alarm, locks and control units; over 0.05 A is a drain.',
});
/** A battery by itself loses about this share of its charge a day at 20 degC. */
export const SELF_LOSS_PER_DAY = parameter(0.002, {
  id: 'maintainer.self-loss',
  name: 'a battery loses of its charge by itself',
  low: 0.0005,
  high: 0.004,
  unit: 'share a day',
  reason: 'At 20 degC: a good AGM loses a quarter of what an old flooded one does.',
});
/** Charge below which a battery that stands begins to sulphate, share. */
export const STANDING_LEAST_SOC = 0.5;
/** Fuse at the battery's end of the pigtail, A: over any maintainer, under what 1.5 mm2 carries in a bundle. */
export const PIGTAIL_FUSE_AMPS = 7.5;
/** Section of the pigtail, mm2: a fault blows the fuse before the wire warms. */
export const PIGTAIL_MM2 = 1.5;
/** A maintainer should give this many times what is lost, so that it also makes up for a cold week. */
const SPARE = 2;

/** How a battery that stands for weeks is kept full, and what becomes of it otherwise. */
export interface Maintaining {
  /** Of the maintainer, A. */
  readonly amps: number;
  readonly leastVolts: number;
  readonly mostVolts: number;
  readonly fuseAmps: number;
  readonly sectionMm2: number;
  /** Lost in a day with everything joined, Ah. */
  readonly lostAhPerDay: number;
  /** From full to where it sulphates, days: as it stands, and with its negative off. */
  readonly daysJoined: number;
  readonly daysParted: number;
}

/**
 * A maintainer that keeps this battery full while its machine stands.
 *
 * @param drainAmps measured while the machine sleeps; null where nobody has
 * @returns days rounded down, amps no less than the usual maintainer's
 * @throws RangeError for a drain below zero
 * @example maintaining({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }, 0.03).amps // => 1
 */
export function maintaining(rating: BatteryRating, drainAmps: number | null): Maintaining {
  const drain = drainAmps ?? SLEEP_AMPS;
  if (drain < 0) throw new RangeError('drainAmps must not be below zero');
  const isBank = rating.chemistry === 'capacitor';
  const selfAh = rating.capacityAh * (isBank ? BANK_LEAK_A_DAY : SELF_LOSS_PER_DAY);
  const lostAhPerDay = drain * HOURS_A_DAY + selfAh;
  const spareAh = rating.capacityAh * (1 - (isBank ? BANK_LEAST_SOC : STANDING_LEAST_SOC));
  const { least, most } = FLOAT_VOLTS[rating.chemistry];
  return {
    amps: Math.max(MAINTAIN_AMPS, Math.ceil((SPARE * lostAhPerDay * 2) / HOURS_A_DAY) / 2),
    leastVolts: least,
    mostVolts: most,
    fuseAmps: PIGTAIL_FUSE_AMPS,
    sectionMm2: PIGTAIL_MM2,
    lostAhPerDay,
    daysJoined: Math.floor(spareAh / lostAhPerDay),
    daysParted: Math.floor(spareAh / selfAh),
  };
}
