import { hasLooseLeads } from '../../plan/index.js';
import type { HouseRuleKey, HouseRules } from '../../rules/index.js';
import { pointOf } from '../../machine/index.js';
import { type Hazard, severityRank } from '../judge/hazard.js';
import { hookupOrder, type HookupStep } from './order.js';
import { hazardsThroughout } from './safest-order.js';
import type { HookupScene } from '../judge/state.js';

/** A house rule that an order does not keep. */
export interface Overruled {
  readonly rule: HouseRuleKey;
  /** The hazard that comes with keeping it; null where this machine has no place for it. */
  readonly hazard: Hazard | null;
}

type AttachAction = Extract<HookupStep['action'], { kind: 'attach' }>;

/**
 * Returns the house rules that an order departs from, each with the hazard that overrules it. Use it wherever an order is shown: a rule that is
 * not followed is named.
 *
 * @param order as `safestWired` gave it
 * @param waitMinutes as it was given there
 */
export function overruledBy(
  scene: HookupScene,
  order: readonly HookupStep[],
  waitMinutes: number,
  rules: HouseRules,
): readonly Overruled[] {
  const { machine, donor, option } = scene;
  const isKept = keptRules(scene, order, rules);
  const broken = (Object.keys(isKept) as (keyof typeof isKept)[]).filter((rule) => isKept[rule] === false);
  if (broken.length === 0) return [];
  const asRuled = hookupOrder(machine, donor, option, waitMinutes, rules);
  const worst = hazardsThroughout(scene, asRuled, rules)
    .filter(({ severity }) => severity === 'severe')
    .sort((a, b) => severityRank(b) - severityRank(a) || (b.amps ?? 0) - (a.amps ?? 0))[0];
  return broken.map((rule) => ({ rule, hazard: worst ?? null }));
}

/** Returns for each rule whether an order keeps it; leaves out a rule that asks nothing of this order. */
function keptRules(
  { machine, option }: HookupScene,
  order: readonly HookupStep[],
  { clampSequence, firstRed, lastBlack, donorEngine }: HouseRules,
): Partial<Record<'clampSequence' | 'firstRed' | 'lastBlack' | 'donorEngine', boolean>> {
  const attached = order.flatMap(({ action }): AttachAction[] => (action.kind === 'attach' ? [action] : []));
  const at = (clamp: AttachAction['clamp']): number => attached.findIndex((a) => a.clamp === clamp);
  const black = attached[at('blackCasualty')];
  const isOnMinus = black && pointOf(machine, black.pointId).kind === 'battery-negative';
  const hasMinus = machine.points.some(({ kind }) => kind === 'battery-negative');
  const isLoose = hasLooseLeads(option);
  const isFirstRed = at('redCasualty') < at('redSource') === (firstRed === 'casualty');
  const engineAt = order.findIndex(({ action }) => action.kind === 'donor-engine');
  const firstClampAt = order.findIndex(({ action }) => action.kind === 'attach');
  return {
    ...(isLoose && {
      clampSequence: Math.max(at('redSource'), at('blackSource')) < 2 === (clampSequence === 'source-first'),
      ...(clampSequence !== 'source-first' && { firstRed: isFirstRed }),
    }),
    ...(lastBlack === 'negative-terminal' && hasMinus && { lastBlack: isOnMinus }),
    ...(donorEngine === 'running' &&
      option.sourceKind === 'donor' && { donorEngine: engineAt >= 0 && engineAt < firstClampAt }),
  };
}
