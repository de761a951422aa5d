// What a van lends power with. What is public of this floor; nothing else is imported from outside the core.
export * from './cell-bank.js';
export * from './kit.js';
export * from './usual-kit.js';
export * from './models.js';
export * from './latch.js';
export * from './kit-age.js';
