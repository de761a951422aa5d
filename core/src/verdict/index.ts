// What to do with the battery, and on what ground. What is public of this floor; nothing else is imported from outside the core.
export * from './case.js';
export * from './proof.js';
export * from './conclude.js';
export * from './charge-plan.js';
export * from './replacement.js';
export * from './bank-instead.js';
export * from './trend.js';
