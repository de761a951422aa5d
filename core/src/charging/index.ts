// Charging, lending, driving, reviving. Other floors import this file alone.
export * from './charge-time.js';
export * from './charger.js';
export * from './maintainer.js';
export * from './lend.js';
export * from './drive.js';
export * from './revive.js';
export * from './lift.js';
export * from './left-on.js';
export * from './run-down.js';
export * from './charge-watch.js';
