// The kit of a van. The door of this floor: nothing else of it is imported from outside.
export * from './cell-bank.js';
export * from './kit.js';
export * from './usual-kit.js';
export * from './models.js';
export * from './latch.js';
export * from './kit-age.js';
