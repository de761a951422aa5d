import { type Machine, startsByWaking } from './machine.js';

/** Why a machine cannot be started by rolling, and what to mind where it can. */
export type RollingStartBar =
  | 'wakes'
  | 'not-manual'
  | 'no-gearbox'
  | 'onto-road'
  | 'no-control-power'
  | 'clamps-on'
  | 'runs'
  | 'stopped';
export type RollingStartCaution = 'steering-and-brakes' | 'needs-push' | 'second-gear' | 'catalyst';

export type RollStep =
  | 'clear-run'
  | 'nobody-before'
  | 'pushers'
  | 'key-on'
  | 'brakes-heavy'
  | 'second-gear'
  | 'rolling'
  | 'clutch-up'
  | 'few-times'
  | 'keep-running';

/**
 * The acts of a rolling start, in order.
 *
 * @example rollOrder({ cautions: [] })[0] // => 'clear-run'
 */
export function rollOrder({ cautions }: Pick<RollingStart, 'cautions'>): RollStep[] {
  const only = (caution: RollingStartCaution, step: RollStep): RollStep[] =>
    cautions.includes(caution) ? [step] : [];
  return [
    'clear-run',
    'nobody-before',
    ...only('needs-push', 'pushers'),
    'key-on',
    'brakes-heavy',
    'second-gear',
    'rolling',
    'clutch-up',
    ...only('catalyst', 'few-times'),
    'keep-running',
  ];
}

export interface RollingStart {
  readonly allowed: boolean;
  readonly bars: readonly RollingStartBar[];
  readonly cautions: readonly RollingStartCaution[];
}

/** Below this the control unit and the fuel pump stay dark at any speed, V of 12 V. */
export const ROLLING_MIN_REST_VOLTS = 9;

/** The facts that decide a rolling start beside the machine itself. */
export interface RollingScene {
  readonly sloping: boolean;
  /** The way down ends on a road with traffic. */
  readonly ontoRoad: boolean;
  /** Rest volts of the whole string; null when not read. */
  readonly restVolts: number | null;
  /** A clamp is on: whoever pushes would drag the leads. Left out: none. */
  readonly isJoined?: boolean;
  /** Its engine runs already. Left out: it does not. */
  readonly runs?: boolean;
  /** A stop condition is in force. Left out: none. */
  readonly isStopped?: boolean;
}

/**
 * Whether this machine may be started by rolling. Manual gearbox only, key on, second gear, a safe slope or a push; never an automatic,
 * a hybrid or an EV, and never onto a road.
 */
export function rollingStart(machine: Machine, scene: RollingScene): RollingStart {
  const bars: RollingStartBar[] = [];
  if (startsByWaking(machine)) bars.push('wakes');
  else if (machine.gearbox === 'none') bars.push('no-gearbox');
  else if (machine.gearbox !== 'manual') bars.push('not-manual');
  if (scene.ontoRoad) bars.push('onto-road');
  const least = (ROLLING_MIN_REST_VOLTS * machine.systemVolts) / 12;
  if (scene.restVolts !== null && scene.restVolts < least) bars.push('no-control-power');
  if (scene.isJoined) bars.push('clamps-on');
  if (scene.runs) bars.push('runs');
  if (scene.isStopped) bars.push('stopped');
  const cautions: RollingStartCaution[] = ['second-gear', 'steering-and-brakes'];
  if (!scene.sloping) cautions.push('needs-push');
  if (machine.engine?.fuel === 'petrol') cautions.push('catalyst');
  return { allowed: bars.length === 0, bars, cautions };
}
