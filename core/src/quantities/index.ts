// Plain quantities: interpolation, bisection, ranges, seeded chance, points in a plane, claims beside what happened. Other floors import this file alone.
export * from './bisect.js';
export * from './interpolate.js';
export * from './parameter.js';
export * from './plane.js';
export * from './random.js';
export * from './range.js';
export * from './reliability.js';
export * from './table.js';
export * from './time.js';
