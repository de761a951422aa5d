// A battery: volts, resistance, freezing, strength. What is public of this floor; nothing else is imported from outside the core.
export * from './chemistry.js';
export * from './rest-volts.js';
export * from './gravity.js';
export * from './freezing.js';
export * from './cca.js';
export * from './battery.js';
export * from './strength.js';
export * from './bar.js';
