// Charging, lending, driving, reviving. The door of this floor: nothing else of it is imported from outside.
export * from './charge-time.js';
export * from './charger.js';
export * from './maintainer.js';
export * from './lend.js';
export * from './drive.js';
export * from './revive.js';
export * from './left-on.js';
export * from './run-down.js';
export * from './charge-watch.js';
