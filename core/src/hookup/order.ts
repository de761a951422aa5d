import { type ClampId } from '../circuit/rescue.js';
import { clampPoints } from '../crank/clamp-points.js';
import type { SourceOption } from '../crank/options.js';
import { type Machine, type MachinePoint, metresToNearestBlock, startsByWaking } from '../machine/machine.js';
import type { HouseRules, RuleKey } from '../rules/house-rules.js';
import { type Confirmation, type HookupAction } from './actions.js';
import { PACK_END } from './state.js';

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
  if (option.sourceKind !== 'donor') {
    return { redCasualty: red, blackCasualty: black, redSource: PACK_END, blackSource: PACK_END };
  }
  const donorRed = donor?.points.find((p) => p.kind === 'red-post' || p.kind === 'block-positive');
  const donorBlack = donor?.points.find((p) => p.kind === 'block-negative' || p.kind === 'ground-point');
  if (!donorRed || !donorBlack) throw new RangeError('the donor has no place for the clamps');
  return { redCasualty: red, blackCasualty: black, redSource: donorRed.id, blackSource: donorBlack.id };
}

/** Minutes to let a running donor lend charge, by rule: longer for a diesel and for a very flat block. */
export function donorWaitMinutes(machine: Machine, lowestSoc: number, rules: HouseRules): number {
  if (lowestSoc <= VERY_FLAT_SOC) return rules.donorWaitMinVeryFlat;
  return machine.engine?.fuel === 'diesel' ? rules.donorWaitMinDiesel : rules.donorWaitMinPetrol;
}
/** Charge at which a block counts as very flat. */
const VERY_FLAT_SOC = 0.03;

/** The order in which the option is hooked up to this machine, under the house rules. */
export function hookupOrder(
  machine: Machine,
  donor: Machine | null,
  option: SourceOption,
  lowestSoc: number,
  rules: HouseRules,
): HookupStep[] {
  const places = clampPlaces(machine, donor, option, rules);
  const lastBlack = lastBlackStep(machine, places, option);
  if (option.sourceKind !== 'donor') {
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
  const steps: HookupStep[] = [
    confirm('all-off', 'nothing-drawing'),
    ...reds,
    attach('blackSource', places.blackSource, 'donor-black'),
    lastBlack,
  ];
  if (option.donorRuns && rules.donorEngine !== 'off-throughout' && !startsByWaking(machine)) {
    steps.push(
      { action: { kind: 'donor-engine', running: true }, reason: 'donor-lends', rule: 'donorEngine' },
      { ...confirm('wait', 'charge-first'), minutes: donorWaitMinutes(machine, lowestSoc, rules) },
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
    if (action.kind === 'donor-engine') {
      off.push({ action: { kind: 'donor-engine', running: false }, reason: 'reverse-order' });
    }
  }
  return startsByWaking(machine) ? off : [confirm('big-consumer-on', 'spike-tamed'), ...off];
}

function confirm(what: Confirmation, reason: StepReason): HookupStep {
  return { action: { kind: 'confirm', what }, reason };
}

function attach(clamp: ClampId, pointId: string, reason: StepReason, rule?: RuleKey): HookupStep {
  return { action: { kind: 'attach', clamp, pointId }, reason, ...(rule && { rule }) };
}
