// Trials with a hidden fault. What is public of this floor; nothing else is imported from outside the core.
export * from './trial.js';
export * from './recorded-try.js';
