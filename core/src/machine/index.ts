// A model as the atlas has it: batteries, points, geometry. What is public of this floor; nothing else is imported from outside the core.
export * from './machine.js';
export * from './earth.js';
export * from './geometry.js';
export * from './data-faults.js';
export * from './rolling-start.js';
