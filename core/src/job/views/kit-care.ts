import { anyClampOn } from '../../hookup/index.js';
import { isCharged, type KitItem } from '../../sources/index.js';
import type { Job } from '../job.js';

export const KIT_NEEDS = ['recharge', 'clean'] as const;
/** The care of a piece of kit before it is good for the next call. */
export type KitNeed = (typeof KIT_NEEDS)[number];

export interface KitCare {
  readonly kitItemId: string;
  readonly need: KitNeed;
}

/**
 * Returns the care of a job's kit once everything is off again: a source is recharged. Clamps that were on a casualty are wiped and looked
 * at, since acid and salt eat the jaws.
 */
export function kitCare(
  job: Pick<Job, 'plan' | 'everConnected' | 'hookup'>,
  kit: readonly KitItem[],
): KitCare[] {
  if (!job.plan || !job.everConnected || anyClampOn(job.hookup)) return [];
  const { sourceId, leadSetId } = job.plan;
  const source = kit.find((item) => item.id === sourceId);
  return [
    ...(source && isCharged(source) ? [{ kitItemId: source.id, need: 'recharge' } as const] : []),
    ...(leadSetId && kit.some((item) => item.id === leadSetId)
      ? [{ kitItemId: leadSetId, need: 'clean' } as const]
      : []),
  ];
}
