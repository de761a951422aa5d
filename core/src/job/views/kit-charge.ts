import { lentAh } from '../../charging/index.js';
import { stateOf } from '../../belief/index.js';
import { connectedRescue, sourceOptions } from '../../plan/index.js';
import {
  BOOSTER_FILLED_VOLTS,
  boosterFillSeconds,
  type ChargedKit,
  isCharged,
  kindOf,
  type KitItem,
  type OwnCharge,
} from '../../sources/index.js';
import type { Job } from '../job.js';
import type { Situation } from '../situation.js';

/** Current of an EV or hybrid that is being woken, A: the trade says 20 to 40. */
const WAKING_AMPS = 30;

/** Longer than this nothing carried in a van gives on: it is empty, or was forgotten on the log. */
const LENDS_MOST_MINUTES = 240;

/** Returns the charge left in a piece, share of full, 0 to 1. */
export const chargeOf = (item: ChargedKit): number => ownCharge(item).shareOf(item);

/** Charge of a full one at its terminals, Ah; of a capacitor booster, down to nothing. */
export const capacityAhOf = (item: ChargedKit): number => ownCharge(item).capacityAh(item);

/** The same piece with another charge, kept between empty and full. */
export const withCharge = <K extends ChargedKit>(item: K, share: number): K =>
  ownCharge(item).withShare(item, Math.min(1, Math.max(0, share)));

const ownCharge = <K extends ChargedKit>(item: K): OwnCharge<K> => kindOf(item).charge!;

/** The piece when its charge is known to be this at this moment. */
export const chargedTo = <K extends ChargedKit>(item: K, share: number, at: Date): K => ({
  ...withCharge(item, share),
  chargedAt: at.toISOString(),
});

/** Charge that a job took out of one piece of kit. */
export interface KitUse {
  readonly kitItemId: string;
  /** Share of what it holds when full; over one where it was filled again in between. */
  readonly share: number;
}

/**
 * Returns the charge that a job took out of the kit: for each try with help, the planned amps of the starter times its seconds. All of it
 * is put to the source, which is a little much: the casualty's own battery gives some. The charge that a source gave to a flat battery too,
 * until it was off or the machine ran.
 */
export function kitUses(job: Pick<Job, 'attempts' | 'joins'>, situation: Situation): KitUse[] {
  const ah = new Map<string, number>();
  const take = (sourceId: string, taken: number): void => {
    ah.set(sourceId, (ah.get(sourceId) ?? 0) + taken);
  };
  for (const { sourceId, starterAmps, seconds } of job.attempts)
    if (sourceId !== null && seconds !== null)
      take(sourceId, ((starterAmps ?? WAKING_AMPS) * seconds) / 3600);
  for (const { sourceId, ah: lent } of lentByJoins(job, situation)) take(sourceId, lent);
  return situation.record.kit.flatMap((item) => {
    const taken = ah.get(item.id);
    return taken !== undefined && isCharged(item)
      ? [{ kitItemId: item.id, share: taken / capacityAhOf(item) }]
      : [];
  });
}

/**
 * Returns the charge that a booster's converter put into its bank in so many minutes on a weak battery, Ah: all of it once it is full.
 * Nothing where the battery cannot feed it.
 */
function filledAh(
  booster: Extract<KitItem, { kind: 'capacitor-booster' }>,
  weak: Parameters<typeof boosterFillSeconds>[2],
  minutes: number,
): number {
  const seconds = boosterFillSeconds(booster, BOOSTER_FILLED_VOLTS, weak);
  if (seconds === null) return 0;
  // At constant power the square of the volts rises evenly.
  const share = Math.min(1, (minutes * 60) / seconds);
  const volts = Math.sqrt(booster.volts ** 2 + share * (BOOSTER_FILLED_VOLTS ** 2 - booster.volts ** 2));
  return ((booster.cellFarads / booster.cells) * (volts - booster.volts)) / 3600;
}

/** Returns the charge that each join of a piece gave to the casualty's batteries, Ah. */
function lentByJoins(
  job: Pick<Job, 'joins'>,
  { machine, batteries, tempC, rules, record: { kit } }: Situation,
): { readonly sourceId: string; readonly ah: number }[] {
  if (job.joins.length === 0) return [];
  const charged = batteries.beliefs.map((b) => ({ rating: b.rating, state: stateOf(b, tempC) }));
  const options = new Map(sourceOptions(machine, kit, batteries, tempC, rules).map((o) => [o.id, o]));
  const isOfCharge = new Set(kit.filter(isCharged).map(({ id }) => id));
  return job.joins.flatMap(({ optionId, minutes }) => {
    const option = options.get(optionId);
    const booster = kit.find(({ id }) => id === option?.sourceId);
    if (booster?.kind === 'capacitor-booster' && booster.converterAmps !== null) {
      const weak = batteries.models[batteries.weakest]!;
      return [{ sourceId: booster.id, ah: -filledAh(booster, weak, minutes) }];
    }
    if (!option || !isOfCharge.has(option.sourceId)) return [];
    const rescue = connectedRescue(machine, option, batteries, tempC, rules);
    return [
      { sourceId: option.sourceId, ah: lentAh(rescue, charged, Math.min(minutes, LENDS_MOST_MINUTES)) },
    ];
  });
}
