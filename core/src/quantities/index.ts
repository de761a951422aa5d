// Plain quantities: interpolation, bisection, ranges, seeded chance, points in a plane. The door of this floor: nothing else of it is imported from outside.
export * from './bisect.js';
export * from './interpolate.js';
export * from './parameter.js';
export * from './plane.js';
export * from './random.js';
export * from './range.js';
export * from './table.js';
export * from './time.js';
