// A model as the atlas has it: batteries, points, geometry. The door of this floor: nothing else of it is imported from outside.
export * from './machine.js';
export * from './earth.js';
export * from './geometry.js';
export * from './data-faults.js';
export * from './rolling-start.js';
