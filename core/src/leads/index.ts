// Lead sets and their contacts. The door of this floor: nothing else of it is imported from outside.
export * from './lead-set.js';
export * from './measured-set.js';
