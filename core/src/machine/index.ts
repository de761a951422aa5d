// A model as the atlas has it: batteries, points, geometry. Other floors import this file alone.
export * from './machine.js';
export * from './earth.js';
export * from './geometry.js';
export * from './data-faults.js';
export * from './draw-share.js';
export * from './rolling-start.js';
