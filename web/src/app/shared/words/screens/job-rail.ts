import { type Shown, tell } from '../tell';

/** Words of the screens of job, rail, one list a part. */

export const RAIL = {
  stages: 'Stages',
  done: 'done',
} as const;

export const STAGE_RESULTS = {
  stopStands: 'stop stands',
  atFault: (faults: Shown) => tell`${faults} at fault`,
  on: (on: Shown) => tell`${on} on`,
  allOff: 'all off',
  runsTry: (attempts: Shown) => tell`runs, try ${attempts}`,
  awakeTry: (attempts: Shown) => tell`awake, try ${attempts}`,
  charging: (volts: Shown) => tell`charging ${volts}`,
  readings: (readings: Shown) => tell`${readings} readings`,
} as const;
