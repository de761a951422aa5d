import { startsByWaking } from '../machine/index.js';
import type { Case } from '../verdict/index.js';
import type { Happened, World } from './world.js';

/** Returns the known rest volts, battery by battery; null where not read. */
export function restVoltsKnown({ evidence, practice }: World): (number | null)[] {
  return practice.machine.batteries.map((_, i) => {
    const read = evidence.filter((e) => e.check === 'rest' && (e.battery ?? 0) === i).at(-1)?.found;
    return typeof read === 'number' ? read : null;
  });
}

/** True of a look at the case of the battery, which no other finding is weighed with. */
export const looksAtCase = ({ action }: Happened): boolean =>
  action.kind === 'check' && action.check === 'case';

/** Returns the facts beside the evidence. */
export function factsOf(world: World): Case {
  const { practice, evidence, log } = world;
  const isHurt = log.some((happened) => looksAtCase(happened) && happened.found === 'fault');
  return {
    chemistry: practice.profile.rating.chemistry,
    wakes: startsByWaking(practice.machine),
    tempC: practice.tempC,
    stops: isHurt ? ['case-damaged'] : [],
    restVolts: restVoltsKnown(world),
    earlierFlatCalls: evidence.some((e) => e.check === 'ask-flats' && e.found === 'yes') ? 1 : 0,
    diedInService: false,
  };
}
