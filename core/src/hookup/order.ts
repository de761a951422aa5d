import { type ClampId } from '../circuit/rescue.js';
import { clampPoints } from '../crank/clamp-points.js';
import { hasLooseLeads, type SourceOption } from '../crank/options.js';
import { type Machine, type MachinePoint, metresToNearestBlock, startsByWaking } from '../machine/machine.js';
import type { HouseRules, RuleKey } from '../rules/house-rules.js';
import { type Confirmation, type HookupAction } from './actions.js';
import { PACK_END, SPARE_POSTS } from './state.js';

/** Why a step stands where it does: a code the screens have words for. */
export type StepReason =
  | 'nothing-drawing'
  | 'red-first'
  | 'red-free-end-weak'
  | 'donor-black'
  | 'last-away-from-block'
  | 'last-at-block'
  | 'middle-joint-live'
  | 'pack-black'
  | 'pack-still-off'
  | 'polarity-guard'
  | 'pack-arms'
  | 'donor-lends'
  | 'charge-first'
  | 'spike-tamed'
  | 'helper-black'
  | 'sum-first'
  | 'charger-dead'
  | 'charger-black'
  | 'plug-last'
  | 'block-charges'
  | 'reverse-order'
  | 'no-arc-at-clamps';

export interface HookupStep {
  readonly action: HookupAction;
  readonly reason: StepReason;
  /** The house rule that decides, when one does. */
  readonly rule?: RuleKey;
  /** Minutes, for a wait. */
  readonly minutes?: number;
}

/** The four places the clamps go. Source ends of a pack are built in. */
export interface ClampPlaces {
  readonly redCasualty: MachinePoint;
  readonly blackCasualty: MachinePoint;
  readonly redSource: string;
  readonly blackSource: string;
}

/**
 * Where each clamp of the option bites.
 *
 * @param donor the donor's atlas entry when the option is a donor
 * @throws RangeError when the machine has no usable point, or a donor option comes without its donor
 */
export function clampPlaces(
  machine: Machine,
  donor: Machine | null,
  option: SourceOption,
  rules: HouseRules,
): ClampPlaces {
  const { red, black } = clampPoints(machine, option.across, rules);
  if (!hasLooseLeads(option)) {
    return { redCasualty: red, blackCasualty: black, redSource: PACK_END, blackSource: PACK_END };
  }
  if (option.sourceKind === 'spare-blocks') {
    const { plus, minus } = SPARE_POSTS;
    return { redCasualty: red, blackCasualty: black, redSource: plus, blackSource: minus };
  }
  const donorRed = donor?.points.find((p) => p.kind === 'red-post' || p.kind === 'block-positive');
  const donorBlack = donor?.points.find((p) => p.kind === 'block-negative' || p.kind === 'ground-point');
  if (!donorRed || !donorBlack) throw new RangeError('the donor has no place for the clamps');
  return { redCasualty: red, blackCasualty: black, redSource: donorRed.id, blackSource: donorBlack.id };
}

/**
 * The order in which the option is hooked up to this machine, under the house rules.
 *
 * @param waitMinutes charging before the crank, as the plan has it; 0 for none
 */
export function hookupOrder(
  machine: Machine,
  donor: Machine | null,
  option: SourceOption,
  waitMinutes: number,
  rules: HouseRules,
): HookupStep[] {
  const places = clampPlaces(machine, donor, option, rules);
  const lastBlack = lastBlackStep(machine, places, option);
  if (option.sourceKind === 'mains-charger') {
    return [
      confirm('all-off', 'nothing-drawing'),
      confirm('charger-set', 'charger-dead'),
      attach('redCasualty', places.redCasualty.id, 'charger-dead'),
      { ...lastBlack, reason: 'charger-black' },
      { action: { kind: 'plug', in: true }, reason: 'plug-last' },
      { action: { kind: 'pack', on: true }, reason: 'block-charges' },
      ...(waitMinutes > 0 ? [{ ...confirm('wait', 'charge-first'), minutes: waitMinutes }] : []),
    ];
  }
  if (!hasLooseLeads(option)) {
    return [
      confirm('all-off', 'nothing-drawing'),
      attach('redCasualty', places.redCasualty.id, 'pack-still-off'),
      { ...lastBlack, reason: lastBlack.reason === 'middle-joint-live' ? 'middle-joint-live' : 'pack-black' },
      confirm('guard-lamp', 'polarity-guard'),
      { action: { kind: 'pack', on: true }, reason: 'pack-arms' },
    ];
  }
  const redCasualty = attach('redCasualty', places.redCasualty.id, 'red-first', 'firstRed');
  const redSource = attach('redSource', places.redSource, 'red-free-end-weak');
  const reds = rules.firstRed === 'casualty' ? [redCasualty, redSource] : [redSource, redCasualty];
  const isDonor = option.sourceKind === 'donor';
  const steps: HookupStep[] = [
    confirm('all-off', 'nothing-drawing'),
    ...(option.outputVolts === 24 && !isDonor ? [confirm('series-sum', 'sum-first')] : []),
    ...reds,
    attach('blackSource', places.blackSource, isDonor ? 'donor-black' : 'helper-black'),
    lastBlack,
  ];
  if (option.donorRuns && rules.donorEngine !== 'off-throughout' && !startsByWaking(machine)) {
    steps.push(
      { action: { kind: 'donor-engine', running: true }, reason: 'donor-lends', rule: 'donorEngine' },
      ...(waitMinutes > 0 ? [{ ...confirm('wait', 'charge-first'), minutes: waitMinutes }] : []),
    );
  }
  return steps;
}

function lastBlackStep(machine: Machine, places: ClampPlaces, option: SourceOption): HookupStep {
  const point = places.blackCasualty;
  if (option.across.kind === 'block' && option.across.block > 0) {
    return attach('blackCasualty', point.id, 'middle-joint-live');
  }
  const away = metresToNearestBlock(machine, point) > 0 && point.kind === 'ground-point';
  return attach('blackCasualty', point.id, away ? 'last-away-from-block' : 'last-at-block', 'lastBlack');
}

/**
 * The order that takes a hook-up off again: its exact reverse. Waits and looks fall away; a big consumer goes on first where an
 * engine now charges, to tame the spike.
 */
export function clearingOrder(steps: readonly HookupStep[], machine: Machine): HookupStep[] {
  const off: HookupStep[] = [];
  for (const { action } of [...steps].reverse()) {
    if (action.kind === 'attach')
      off.push({ action: { kind: 'detach', clamp: action.clamp }, reason: 'reverse-order' });
    if (action.kind === 'pack') off.push({ action: { kind: 'pack', on: false }, reason: 'no-arc-at-clamps' });
    if (action.kind === 'plug') off.push({ action: { kind: 'plug', in: false }, reason: 'no-arc-at-clamps' });
    if (action.kind === 'donor-engine') {
      off.push({ action: { kind: 'donor-engine', running: false }, reason: 'reverse-order' });
    }
  }
  // A mains charger is cleared away before, or without, any engine charging.
  const engineCharges = !startsByWaking(machine) && !steps.some(({ action }) => action.kind === 'plug');
  return engineCharges ? [confirm('big-consumer-on', 'spike-tamed'), ...off] : off;
}

function confirm(what: Confirmation, reason: StepReason): HookupStep {
  return { action: { kind: 'confirm', what }, reason };
}

function attach(clamp: ClampId, pointId: string, reason: StepReason, rule?: RuleKey): HookupStep {
  return { action: { kind: 'attach', clamp, pointId }, reason, ...(rule && { rule }) };
}
