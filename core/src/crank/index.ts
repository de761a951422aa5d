// The crank: quasi-steady, in time, the wake-up, and as a netlist. Other floors import this file alone.
export * from './quick.js';
export * from './crank-case.js';
export * from './transient.js';
export { STEP_SECONDS } from './crank-steps.js';
export * from './outcome.js';
export * from './wake.js';
export * from './rest.js';
export * from './spice.js';
