import type { ClampId } from '../../circuit/index.js';
import { clampPoints, farthestGround, hasLooseLeads, type SourceOption } from '../../plan/index.js';
import {
  type Machine,
  type MachinePoint,
  metresToNearestBattery,
  pointOf,
  startsByWaking,
} from '../../machine/index.js';
import type { HouseRuleKey, HouseRules } from '../../rules/index.js';
import type { Confirmation, HookupAction } from '../actions.js';
import { PACK_END, SPARE_POSTS } from '../judge/state.js';

/** Why a step stands where it does: a code the screens have words for. */
export type StepReason =
  | 'nothing-drawing'
  | 'stud-may-turn'
  | 'red-first'
  | 'red-free-end-weak'
  | 'donor-black'
  | 'last-away-from-battery'
  | 'last-near-battery'
  | 'last-at-battery'
  | 'last-at-battery-ruled'
  | 'two-ends-live'
  | 'broken-away'
  | 'broken-at-battery'
  | 'loop-open'
  | 'lends-no-more'
  | 'middle-joint-live'
  | 'pack-black'
  | 'pack-still-off'
  | 'polarity-guard'
  | 'pack-arms'
  | 'cells-burn'
  | 'cells-unguarded'
  | 'cells-off-first'
  | 'cells-unplugged'
  | 'cells-unplugged-black'
  | 'cells-plugged'
  | 'donor-lends'
  | 'charge-first'
  | 'charger-works'
  | 'spike-tamed'
  | 'red-closes'
  | 'free-end-strong'
  | 'last-at-source'
  | 'black-not-last'
  | 'wrong-place'
  | 'start-again'
  | 'helper-black'
  | 'sum-first'
  | 'charger-dead'
  | 'charger-black'
  | 'plug-last'
  | 'battery-charges'
  | 'no-arc-at-clamps'
  | 'electronics-apart'
  | 'body-back';

export interface HookupStep {
  readonly action: HookupAction;
  readonly reason: StepReason;
  /** The house rule that decides, when one does. */
  readonly rule?: HouseRuleKey;
  /** Minutes, for a wait. */
  readonly minutes?: number;
  /** The machine's plus is on its body: what is usually red is black here. */
  readonly isMirrored?: true;
}

/** The four places the clamps go. Source ends of a pack are built in. */
export interface ClampPlaces {
  readonly redCasualty: MachinePoint;
  readonly blackCasualty: MachinePoint;
  readonly redSource: string;
  readonly blackSource: string;
}

/**
 * The point of each clamp of the option.
 *
 * @param donor the donor's atlas entry when the option is a donor
 * @param endsAtDonor the last contact is made at the donor: then on its ground point, never on its battery, which has just been charged
 * @throws RangeError when the machine has no usable point, or a donor option comes without its donor
 */
export function clampPlaces(
  machine: Machine,
  donor: Machine | null,
  option: SourceOption,
  rules: HouseRules,
  endsAtDonor = false,
): ClampPlaces {
  const { red, black } = clampPoints(
    machine,
    option.across,
    chargesApart(machine, option, rules) ? { ...rules, lastBlack: 'negative-terminal' } : rules,
  );
  if (!hasLooseLeads(option)) {
    return { redCasualty: red, blackCasualty: black, redSource: PACK_END, blackSource: PACK_END };
  }
  if (option.sourceKind === 'spare-batteries') {
    const { plus, minus } = SPARE_POSTS;
    return { redCasualty: red, blackCasualty: black, redSource: plus, blackSource: minus };
  }
  const donorRed = donor?.points.find((p) => p.kind === 'red-post' || p.kind === 'battery-positive');
  const donorGround = donor ? farthestGround(donor) : undefined;
  const donorMinus = donor?.points.find((p) => p.kind === 'battery-negative');
  const donorBlack = endsAtDonor ? donorGround : (donorMinus ?? donorGround);
  if (!donorRed || !donorBlack) throw new RangeError('the donor has no place for the clamps');
  return { redCasualty: red, blackCasualty: black, redSource: donorRed.id, blackSource: donorBlack.id };
}

/**
 * The order in which the option is hooked up to this machine, under the house rules.
 *
 * @param waitMinutes charging before the crank, as the plan has it; 0 for none
 * @param sequence loose clamps in the order they go on; left out, as the house rules usually have it
 * @param house the rules of the house where `rules` depart from them for safety's sake: a step says that a rule decides only where it does
 */
export function hookupOrder(
  machine: Machine,
  donor: Machine | null,
  option: SourceOption,
  waitMinutes: number,
  rules: HouseRules,
  sequence: readonly ClampId[] = usualSequence(rules),
  house: HouseRules = rules,
): HookupStep[] {
  const endsAtDonor = option.sourceKind === 'donor' && sequence.at(-1) === 'blackSource';
  const places = clampPlaces(machine, donor, option, rules, endsAtDonor);
  const lastBlack = lastBlackStep(machine, places, option, house);
  if (option.sourceKind === 'mains-charger') {
    const isApart = chargesApart(machine, option, rules);
    return [
      ...stillFirst(places),
      ...(isApart
        ? [{ ...confirm('negative-off', 'electronics-apart'), rule: 'chargeOnVehicle' } as const]
        : []),
      confirm('charger-set', 'charger-dead'),
      attach('redCasualty', places.redCasualty.id, 'charger-dead'),
      { ...lastBlack, reason: 'charger-black' },
      { action: { kind: 'plug', in: true }, reason: 'plug-last' },
      { action: { kind: 'pack', on: true }, reason: 'battery-charges' },
      ...(waitMinutes > 0
        ? [{ ...confirm('wait', option.chargeOnly ? 'charger-works' : 'charge-first'), minutes: waitMinutes }]
        : []),
    ];
  }
  if (!hasLooseLeads(option)) {
    // Bare cells have no guard that could warn, and nothing that keeps them from burning but what is done before.
    const isBare = option.sourceKind === 'hobby-lithium';
    return [
      ...stillFirst(places),
      ...(isBare ? [confirm('cells-bagged', 'cells-burn')] : []),
      attach('redCasualty', places.redCasualty.id, isBare ? 'cells-unplugged' : 'pack-still-off'),
      { ...lastBlack, reason: fixedBlackReason(lastBlack, isBare) },
      isBare ? confirm('cells-read', 'cells-unguarded') : confirm('guard-lamp', 'polarity-guard'),
      { action: { kind: 'pack', on: true }, reason: isBare ? 'cells-plugged' : 'pack-arms' },
    ];
  }
  const isDonor = option.sourceKind === 'donor';
  const runsFirst = isDonor && mayRun(machine, option, rules) && rules.donorEngine === 'running';
  const engineOn: HookupStep = {
    action: { kind: 'donor-engine', running: true },
    reason: 'donor-lends',
    rule: 'donorEngine',
  };
  const steps: HookupStep[] = [
    ...stillFirst(places),
    ...(option.outputVolts === 24 && !isDonor ? [confirm('series-sum', 'sum-first')] : []),
    ...(runsFirst ? [engineOn] : []),
    ...sequence.map((clamp, i) => looseStep(clamp, i, sequence, places, lastBlack, isDonor, house)),
  ];
  if (isDonor && mayRun(machine, option, rules)) {
    steps.push(
      ...(runsFirst ? [] : [engineOn]),
      ...(waitMinutes > 0 ? [{ ...confirm('wait', 'charge-first'), minutes: waitMinutes }] : []),
    );
  }
  return steps;
}

function fixedBlackReason({ reason }: HookupStep, isBare: boolean): StepReason {
  if (reason === 'middle-joint-live') return reason;
  return isBare ? 'cells-unplugged-black' : 'pack-black';
}

/** Everything off; and where a clamp goes on the starter itself, a machine that cannot move off should it turn. */
const stillFirst = ({ redCasualty }: ClampPlaces): HookupStep[] => [
  confirm('all-off', 'nothing-drawing'),
  ...(redCasualty.kind === 'starter-stud' ? [confirm('machine-secured', 'stud-may-turn')] : []),
];

/** The battery is taken off the body while it charges: the charger's black then goes on the battery itself. */
function chargesApart(machine: Machine, option: SourceOption, rules: HouseRules): boolean {
  return (
    option.chargeOnly &&
    rules.chargeOnVehicle === 'negative-off' &&
    machine.batteries.length === 1 &&
    machine.points.some((p) => p.kind === 'battery-negative')
  );
}

/** The loose clamps in the order that the house rules usually have them. */
export function usualSequence(rules: HouseRules): readonly ClampId[] {
  if (rules.clampSequence === 'source-first')
    return ['redSource', 'blackSource', 'redCasualty', 'blackCasualty'];
  return rules.firstRed === 'casualty'
    ? ['redCasualty', 'redSource', 'blackSource', 'blackCasualty']
    : ['redSource', 'redCasualty', 'blackSource', 'blackCasualty'];
}

function mayRun(machine: Machine, option: SourceOption, rules: HouseRules): boolean {
  return option.donorRuns && rules.donorEngine !== 'off-throughout' && !startsByWaking(machine);
}

function looseStep(
  clamp: ClampId,
  at: number,
  sequence: readonly ClampId[],
  places: ClampPlaces,
  lastBlack: HookupStep,
  isDonor: boolean,
  house: HouseRules,
): HookupStep {
  const on = sequence.slice(0, at);
  const reason = looseReason(clamp, on, isDonor, lastBlack.reason);
  switch (clamp) {
    case 'redCasualty': {
      const isRuled = (house.firstRed === 'casualty') === !on.includes('redSource');
      return attach(clamp, places.redCasualty.id, reason, isRuled ? 'firstRed' : undefined);
    }
    case 'redSource':
      return attach(clamp, places.redSource, reason);
    case 'blackSource':
      return attach(clamp, places.blackSource, reason);
    case 'blackCasualty':
      return { ...lastBlack, reason };
  }
}

/**
 * Why a loose clamp goes on now, from what is on already: true of that state whether the order was kept or not.
 *
 * @param on the clamps that are on before it
 * @param last the reason of the casualty's black where it closes the loop
 */
export function looseReason(
  clamp: ClampId,
  on: readonly ClampId[],
  isDonor: boolean,
  last: StepReason,
): StepReason {
  const closesLoop = on.length === LOOSE_CLAMPS - 1;
  switch (clamp) {
    case 'redCasualty':
      return on.includes('redSource') ? 'red-closes' : 'red-first';
    case 'redSource':
      return on.includes('redCasualty') ? 'red-free-end-weak' : 'free-end-strong';
    case 'blackSource':
      if (closesLoop) return 'last-at-source';
      if (on.length < LOOSE_CLAMPS - 2) return 'two-ends-live';
      return isDonor ? 'donor-black' : 'helper-black';
    case 'blackCasualty':
      return closesLoop ? last : 'black-not-last';
  }
}
const LOOSE_CLAMPS = 4;

function lastBlackStep(
  machine: Machine,
  { blackCasualty: point }: ClampPlaces,
  option: SourceOption,
  house: HouseRules,
): HookupStep {
  const reason = lastBlackReason(machine, point, option, house);
  const isRuled = (house.lastBlack === 'ground-point') === (point.kind === 'ground-point');
  const rule = reason !== 'middle-joint-live' && isRuled ? 'lastBlack' : undefined;
  return attach('blackCasualty', point.id, reason, rule);
}

/** A ground point where no gas of a battery gathers. */
const isAwayFromGas = (machine: Machine, point: MachinePoint, { gasDistanceM }: HouseRules): boolean =>
  point.kind === 'ground-point' && metresToNearestBattery(machine, point) >= gasDistanceM;

/** Why the casualty's black goes on this point as the contact that closes the loop. */
export function lastBlackReason(
  machine: Machine,
  point: MachinePoint,
  option: Pick<SourceOption, 'across'>,
  house: HouseRules,
): StepReason {
  if (option.across.kind === 'battery' && option.across.battery > 0) return 'middle-joint-live';
  if (isAwayFromGas(machine, point, house)) return 'last-away-from-battery';
  if (point.kind === 'ground-point') return 'last-near-battery';
  const hasGround = machine.points.some((p) => p.kind === 'ground-point');
  return hasGround ? 'last-at-battery-ruled' : 'last-at-battery';
}

/**
 * The order that takes a hook-up off again: its exact reverse. Waits and looks fall away; a big consumer goes on first where an
 * engine now charges, to tame the spike. Bare lithium cells go off before anything else: the engine is charging them.
 */
export function clearingWired(
  steps: readonly HookupStep[],
  machine: Machine,
  rules: HouseRules,
): HookupStep[] {
  const off: HookupStep[] = [];
  for (const { action } of [...steps].reverse()) {
    if (action.kind === 'attach')
      off.push({
        action: { kind: 'detach', clamp: action.clamp },
        reason: off.some((step) => step.action.kind === 'detach')
          ? 'loop-open'
          : brokenReason(machine, action, rules),
      });
    if (action.kind === 'pack') off.push({ action: { kind: 'pack', on: false }, reason: 'no-arc-at-clamps' });
    if (action.kind === 'plug') off.push({ action: { kind: 'plug', in: false }, reason: 'no-arc-at-clamps' });
    if (action.kind === 'confirm' && action.what === 'negative-off')
      off.push(confirm('negative-on', 'body-back'));
    if (action.kind === 'donor-engine') {
      off.push({ action: { kind: 'donor-engine', running: false }, reason: 'lends-no-more' });
    }
  }
  // A mains charger is cleared away before, or without, any engine charging.
  const engineCharges = !startsByWaking(machine) && !steps.some(({ action }) => action.kind === 'plug');
  const tamesSpike = engineCharges && rules.bigConsumer === 'first';
  const isBare = steps.some(({ action }) => action.kind === 'confirm' && action.what === 'cells-bagged');
  const [packOff, ...others] = off;
  const first: HookupStep[] =
    isBare && engineCharges && packOff ? [{ ...packOff, reason: 'cells-off-first' }] : [];
  const rest = first.length > 0 ? others : off;
  return tamesSpike
    ? [...first, { ...confirm('big-consumer-on', 'spike-tamed'), rule: 'bigConsumer' }, ...rest]
    : [...first, ...rest];
}

/** Why the first contact that is broken is the one that was made last. */
function brokenReason(
  machine: Machine,
  { clamp, pointId }: Extract<HookupAction, { kind: 'attach' }>,
  rules: HouseRules,
): StepReason {
  if (clamp === 'blackSource') return 'broken-away';
  return isAwayFromGas(machine, pointOf(machine, pointId), rules) ? 'broken-away' : 'broken-at-battery';
}

function confirm(what: Confirmation, reason: StepReason): HookupStep {
  return { action: { kind: 'confirm', what }, reason };
}

function attach(clamp: ClampId, pointId: string, reason: StepReason, rule?: HouseRuleKey): HookupStep {
  return { action: { kind: 'attach', clamp, pointId }, reason, ...(rule && { rule }) };
}
