// Lead sets and their contacts. What is public of this floor; nothing else is imported from outside the core.
export * from './lead-set.js';
export * from './measured-set.js';
