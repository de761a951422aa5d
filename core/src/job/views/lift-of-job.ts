import { LIFT_STEPS, type LiftStep } from '../../charging/index.js';
import type { Job } from '../job.js';

type LiftRecord = Pick<Job, 'lifting'>;

/** True while the lamp of a lift is joined: nothing else is joined or tried before it is off. */
export const isLiftJoined = ({ lifting }: LiftRecord, battery = lifting?.battery): boolean =>
  lifting !== undefined && lifting.joinedAt !== null && lifting.battery === battery;

/** Returns the step of a battery's lift that comes next. */
export const nextLiftStep = ({ lifting }: LiftRecord, battery: number): LiftStep =>
  LIFT_STEPS[lifting?.battery === battery ? lifting.steps.length : 0]!;
