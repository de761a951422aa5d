// Parking, leads that reach, and ways into a machine that does not open. Other floors import this file alone.
export * from './pose.js';
export * from './route.js';
export * from './parking.js';
export * from './nothing-opens.js';
