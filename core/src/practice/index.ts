// Hidden faults that answer as a machine would, and cases to practise on them. Other floors import this file alone.
export * from './hidden-case.js';
export * from './recorded-try.js';
export * from './rungs.js';
export * from './kit.js';
export * from './world.js';
export * from './case-profile.js';
export * from './written-case.js';
export * from './seed.js';
export * from './breaks.js';
export { ampsAround, ASLEEP_AFTER_MINUTES, CELLS, voltsBetween } from './read-by-hand.js';
export * from './start-case.js';
export * from './act.js';
export * from './tool-play.js';
export * from './debrief.js';
export * from './exam.js';
export * from './drills.js';
export * from './trace-drill.js';
export * from './case-from-log.js';
