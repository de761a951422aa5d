// Charging, lending, driving, reviving. What is public of this floor; nothing else is imported from outside the core.
export * from './charge-time.js';
export * from './charger.js';
export * from './maintainer.js';
export * from './lend.js';
export * from './drive.js';
export * from './revive.js';
export * from './left-on.js';
export * from './run-down.js';
export * from './charge-watch.js';
