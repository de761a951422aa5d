import type { ModelBattery, Terminal } from '../../circuit/index.js';
import type { FeedKind } from '../judge/circumstances.js';
import { slipAmps } from './fitting.js';
import { isPositiveEarth, type Machine } from '../../machine/index.js';
import { JOINT_REPAIRS, type Repair } from '../../diagnosis/index.js';

export const REPAIR_STEPS = [
  'all-off',
  'secured',
  'minus-off',
  'plus-off',
  'bright-metal',
  'clamp-spread',
  'sleeve-on',
  'plus-on',
  'minus-on',
  'tightened',
  'greased',
  'strap-off',
  'strap-bright',
  'strap-on',
  'fuse-out',
  'fuse-cause',
  'fuse-same',
  'isolator-turned',
  'stop-reason',
  'stop-pulled',
  'switch-set',
  'belt-looked-at',
  'belt-tensioned',
  'turned-by-hand',
] as const;
/** One thing done in a repair. */
export type RepairStep = (typeof REPAIR_STEPS)[number];

/** The same step where plus is on the body. */
export const OTHER_POST_REPAIR: Readonly<Partial<Record<RepairStep, RepairStep>>> = {
  'minus-off': 'plus-off',
  'plus-off': 'minus-off',
  'minus-on': 'plus-on',
  'plus-on': 'minus-on',
};

export interface RepairOrderStep {
  readonly step: RepairStep;
  /** Returns the current of a spanner that slips from this post to bodywork now, A; null where no post is touched. */
  readonly slipAmps: number | null;
}

/**
 * How a repair is made, step by step: the post on the body comes off before a spanner touches the live one, and goes on last. Bright metal,
 * tight, grease over the made joint and never in it.
 *
 * @param models the machine's batteries as the circuit sees them, from the chassis side up
 * @param feeds what else feeds the machine meanwhile: the live post stays live through it
 */
export function repairOrder(
  repair: Repair,
  { batteries, systemVolts, earth }: Pick<Machine, 'batteries' | 'systemVolts' | 'earth'>,
  models: readonly ModelBattery[],
  tempC: number,
  feeds: readonly FeedKind[] = [],
): RepairOrderStep[] {
  const isTurned = isPositiveEarth({ earth });
  const live: Terminal = { kind: 'plus', battery: batteries.length - 1 };
  const earthed: Terminal = { kind: 'minus', battery: 0 };
  const plain = (...steps: RepairStep[]): RepairOrderStep[] =>
    steps.map((step) => ({ step, slipAmps: null }));
  const post = (terminal: Terminal, how: 'off' | 'on', bodyIsOff: boolean): RepairOrderStep => ({
    step: `${(terminal === live) === isTurned ? 'minus' : 'plus'}-${how}`,
    slipAmps: slipAmps(models, tempC, terminal, bodyIsOff, feeds, systemVolts),
  });
  const apart = [...plain('all-off'), post(earthed, 'off', false)];
  const together = [post(earthed, 'on', true)];
  if (JOINT_REPAIRS.includes(repair.kind)) {
    const isLive = repair.side === (isTurned ? 'minus' : 'plus');
    return [
      ...apart,
      ...(isLive ? [post(live, 'off', true)] : []),
      ...plain('bright-metal'),
      ...(repair.kind === 'clamp-resized' ? plain('clamp-spread') : []),
      ...(repair.kind === 'post-sleeved' ? plain('sleeve-on', 'clamp-spread') : []),
      ...(isLive ? [post(live, 'on', true)] : []),
      ...together,
      ...plain('tightened', 'greased', 'turned-by-hand'),
    ];
  }
  switch (repair.kind) {
    case 'strap-cleaned':
      return [...apart, ...plain('strap-off', 'strap-bright', 'strap-on'), ...together, ...plain('greased')];
    case 'fuse-renewed':
      return [...apart, ...plain('fuse-out', 'fuse-cause', 'fuse-same'), ...together];
    case 'isolator-on':
      return plain('all-off', 'isolator-turned');
    case 'stop-released':
      return plain('stop-reason', 'stop-pulled');
    case 'belt-tightened':
      return plain('all-off', 'belt-looked-at', 'belt-tensioned');
    default:
      return plain('secured', 'switch-set');
  }
}
