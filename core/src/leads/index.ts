// Lead sets and their contacts. Other floors import this file alone.
export * from './lead-set.js';
export * from './measured-set.js';
