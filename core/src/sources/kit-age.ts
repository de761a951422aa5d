import { DAY_MS, DAYS_A_YEAR } from '../quantities/index.js';
import { kindOf, type KitItem } from './kit.js';
import type { KeptCharge } from './kit-kind.js';

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
  const years = madeIn === undefined ? 0 : (at.getTime() - Date.UTC(madeIn, 6)) / (DAYS_A_YEAR * DAY_MS);
  return charge && years > 0 ? charge.aged(item, years) : item;
}
