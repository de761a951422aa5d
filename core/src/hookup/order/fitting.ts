import {
  aloneRescue,
  type ModelBattery,
  rescueCircuit,
  solveDc,
  type Terminal,
  terminalNode,
} from '../../circuit/index.js';
import { isPositiveEarth, type Machine, type MachineBattery } from '../../machine/index.js';
import { type FeedKind, feedsOf } from '../judge/circumstances.js';
import { TOUCH_OHMS } from '../judge/solve-state.js';

export const FITTING_STEPS = [
  'fill-cells',
  'balance-cells',
  'memory-keeper-on',
  'all-off',
  'negative-off',
  'positive-off',
  'link-off',
  'vent-hose-off',
  'hold-down-off',
  'lift-out',
  'charge-outside',
  'rest-outside',
  'test-outside',
  'clean',
  'set-in',
  'hold-down-on',
  'vent-hose-on',
  'link-on',
  'positive-on',
  'negative-on',
  'memory-keeper-off',
  'cut-off',
  'teach',
  'mark-date',
] as const;
/** One thing done while a battery is changed. */
export type FittingStep = (typeof FITTING_STEPS)[number];

/** A step, with the current that a slipping spanner would carry to bodywork now. Beside it the current in the reversed order. */
export interface FittingOrderStep {
  readonly step: FittingStep;
  /** Amps; null where no post is touched. */
  readonly slipAmps: number | null;
  readonly otherWayAmps: number | null;
}

/** A step at which nobody touches a post. */
const untouched = (step: FittingStep): FittingOrderStep => ({ step, slipAmps: null, otherWayAmps: null });

/** Makes whose control unit must be taught a new battery: it doses the charge by age and kind. */
function mustBeTaught({ chemistry }: MachineBattery['rating']): boolean {
  return chemistry === 'efb' || chemistry === 'agm' || chemistry === 'lfp';
}

/**
 * The order in which a battery is taken out and another put in: the clamp to the body comes off first and goes on last. So no spanner on a
 * live post meets live bodywork. What a slip would carry is solved on the machine's own circuit.
 *
 * @param models the machine's batteries as the circuit sees them, from the chassis side up
 * @param at which battery
 * @param feeds what else feeds the machine meanwhile; a memory keeper counts from the moment it is on
 */
export function fittingOrder(
  machine: Machine,
  models: readonly ModelBattery[],
  at: number,
  tempC: number,
  feeds: readonly FeedKind[] = [],
): FittingOrderStep[] {
  const battery = machine.batteries[at];
  if (!battery) throw new RangeError(`${machine.id} has no battery ${at}`);
  const keeps = machine.resets.length > 0;
  const live: readonly FeedKind[] = keeps ? [...new Set([...feeds, 'memory-keeper' as const])] : feeds;
  const slip = (terminal: Terminal, strapOff: boolean): number =>
    slipAmps(models, tempC, terminal, strapOff, live, machine.systemVolts);
  const plus: Terminal = { kind: 'plus', battery: at };
  const minus: Terminal = { kind: 'minus', battery: 0 };
  const post = (step: FittingStep, slipNow: number, otherWay: number): FittingOrderStep => ({
    step,
    slipAmps: slipNow,
    otherWayAmps: otherWay,
  });
  const isString = machine.batteries.length > 1;
  const joined = slip(plus, false);
  const still = slip(plus, true);
  const isBank = battery.rating.chemistry === 'capacitor';
  const order = [
    ...(isBank ? [untouched('fill-cells'), untouched('balance-cells')] : []),
    ...(keeps ? [untouched('memory-keeper-on')] : []),
    untouched('all-off'),
    post('negative-off', slip(minus, false), slip(minus, false)),
    post('positive-off', still, joined),
    ...(isString ? [untouched('link-off')] : []),
    ...(battery.ventHose ? [untouched('vent-hose-off')] : []),
    untouched('hold-down-off'),
    untouched('lift-out'),
    untouched('clean'),
    untouched('set-in'),
    untouched('hold-down-on'),
    ...(battery.ventHose ? [untouched('vent-hose-on')] : []),
    ...(isString ? [untouched('link-on')] : []),
    post('positive-on', still, joined),
    post('negative-on', slip(minus, true), slip(minus, true)),
    ...(keeps ? [untouched('memory-keeper-off')] : []),
    ...(isBank ? [untouched('cut-off')] : []),
    ...(mustBeTaught(battery.rating) ? [untouched('teach')] : []),
    untouched('mark-date'),
  ];
  return isPositiveEarth(machine)
    ? order.map((of) => ({ ...of, step: OTHER_POST_STEP[of.step] ?? of.step }))
    : order;
}

/** Done for a new battery only. */
const OF_A_NEW_ONE: readonly FittingStep[] = ['fill-cells', 'balance-cells', 'cut-off', 'teach', 'mark-date'];

/** Done to a battery that is out and goes back in. */
const OUTSIDE: readonly FittingStep[] = ['charge-outside', 'rest-outside', 'test-outside'];

/**
 * The order for a battery that goes back in: it is charged, left to rest and tested between out and in. No date is stamped, and no control
 * unit is taught. A capacitor bank has no surface charge that a rest would take away.
 *
 * @example takeOutOrder(car, models, 0, 5).map(({ step }) => step) // […, 'lift-out', 'charge-outside', 'rest-outside', 'test-outside', …]
 */
export function takeOutOrder(...of: Parameters<typeof fittingOrder>): FittingOrderStep[] {
  const [machine, , at] = of;
  const isBank = machine.batteries[at]?.rating.chemistry === 'capacitor';
  const outside = OUTSIDE.filter((step) => step !== 'rest-outside' || !isBank);
  return fittingOrder(...of)
    .filter(({ step }) => !OF_A_NEW_ONE.includes(step))
    .flatMap((one) => (one.step === 'lift-out' ? [one, ...outside.map(untouched)] : [one]));
}

/** With plus on the body it is plus that comes off first and goes on last. */
export const OTHER_POST_STEP: Readonly<Partial<Record<FittingStep, FittingStep>>> = {
  'negative-off': 'positive-off',
  'positive-off': 'negative-off',
  'negative-on': 'positive-on',
  'positive-on': 'negative-on',
};

/**
 * Amps through a spanner from this post to bodywork.
 *
 * @param strapOff the negative clamp is off
 * @param live what else feeds the machine
 */
export function slipAmps(
  models: readonly ModelBattery[],
  tempC: number,
  terminal: Terminal,
  strapOff: boolean,
  live: readonly FeedKind[],
  systemVolts: number,
): number {
  const feeds = feedsOf(live, systemVolts);
  const bridges = [{ a: terminalNode(terminal), b: 'casualty.body', ohms: TOUCH_OHMS }];
  const solution = solveDc(rescueCircuit({ ...aloneRescue(models, tempC), strapOff, bridges, feeds }));
  const amps = Math.abs(solution.amps.get('bridge.0') ?? 0);
  return amps < LEAK_AMPS ? 0 : amps;
}
/** Less than this is the solver's leak, not a current, A. */
const LEAK_AMPS = 0.01;
