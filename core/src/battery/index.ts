// A battery: volts, resistance, freezing, strength. Other floors import this file alone.
export * from './chemistry.js';
export * from './rest-volts.js';
export * from './gravity.js';
export * from './freezing.js';
export * from './cca.js';
export * from './battery.js';
export * from './strength.js';
export * from './bar.js';
