import { CLAMP_OHMS, clampOhms } from '../leads/index.js';
import { type Population, startShare } from '../belief/index.js';
import { afterWait, type PlanCase } from './plan-case.js';

/** Changes that hands can make before the crank. */
export const HELPS = [
  'heavier-leads',
  'shorter-leads',
  'contact-again',
  'wait-longer',
  'raise-donor',
  'warm-battery',
  'fresh-source',
] as const;
export type Help = (typeof HELPS)[number];

/** One change, and the odds with it. */
export interface HelpGain {
  readonly help: Help;
  readonly odds: number;
  readonly gain: number;
}

/** The next step up in section, and what the others change: each a thing that can be done at a roadside. */
export const HELP_STEPS = {
  sectionFactor: 2,
  lengthFactor: 0.6,
  waitMinutes: 5,
  alternatorFactor: 1.6,
  warmerC: 10,
  sourceOhmsFactor: 0.6,
} as const;
/** A gain smaller than this is within the scatter of the machines drawn. */
export const LEAST_GAIN = 0.01;

/**
 * Returns the greatest helps: each change made by itself and the odds read again from the same machines. Changes that gain nothing are left out.
 *
 * @param now the odds as they stand, read from the same machines
 */
export function whatHelps(plan: PlanCase, now: number, population: Population): HelpGain[] {
  return HELPS.flatMap((help) => {
    const changed = change(plan, help);
    if (!changed) return [];
    const odds = startShare(afterWait(changed), plan.engine, population);
    return [{ help, odds, gain: odds - now }];
  })
    .filter(({ gain }) => gain >= LEAST_GAIN)
    .sort((a, b) => b.gain - a.gain);
}

/** The case with one change made; null where it makes no sense. */
function change(plan: PlanCase, help: Help): PlanCase | null {
  const { rescue } = plan;
  const { source, leads } = rescue;
  const alternator = source?.alternator;
  const isPolarising = source?.polarises ?? false;
  switch (help) {
    case 'heavier-leads':
      return (
        leads && {
          ...plan,
          rescue: { ...rescue, leads: { ...leads, sectionMm2: leads.sectionMm2 * HELP_STEPS.sectionFactor } },
        }
      );
    case 'shorter-leads':
      return (
        leads && {
          ...plan,
          rescue: { ...rescue, leads: { ...leads, lengthM: leads.lengthM * HELP_STEPS.lengthFactor } },
        }
      );
    case 'contact-again':
      return (
        leads && {
          ...plan,
          rescue: {
            ...rescue,
            clampWear: Math.min(rescue.clampWear ?? 1, CLAMP_OHMS.clean / clampOhms(leads)) / 2,
          },
        }
      );
    case 'wait-longer':
      return alternator ? { ...plan, waitMinutes: plan.waitMinutes + HELP_STEPS.waitMinutes } : null;
    case 'raise-donor':
      return source && alternator && isPolarising
        ? {
            ...plan,
            rescue: {
              ...rescue,
              source: {
                ...source,
                alternator: { ...alternator, maxAmps: alternator.maxAmps * HELP_STEPS.alternatorFactor },
              },
            },
          }
        : null;
    case 'warm-battery':
      return { ...plan, rescue: { ...rescue, tempC: rescue.tempC + HELP_STEPS.warmerC } };
    case 'fresh-source':
      return source && !alternator
        ? {
            ...plan,
            rescue: { ...rescue, source: { ...source, ohms: source.ohms * HELP_STEPS.sourceOhmsFactor } },
          }
        : null;
  }
}
