// Parking, leads that reach, and ways into a machine that does not open. The door of this floor: nothing else of it is imported from outside.
export * from './pose.js';
export * from './route.js';
export * from './parking.js';
export * from './nothing-opens.js';
