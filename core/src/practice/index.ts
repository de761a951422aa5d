// Hidden faults that answer as a machine would. What is public of this floor; nothing else is imported from outside the core.
export * from './hidden-case.js';
export * from './recorded-try.js';
