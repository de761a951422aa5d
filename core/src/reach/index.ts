// Where a donor stands, and the leads that reach. What is public of this floor; nothing else is imported from outside the core.
export * from './pose.js';
export * from './route.js';
export * from './parking.js';
export * from './nothing-opens.js';
