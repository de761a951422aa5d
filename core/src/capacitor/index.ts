// Banks of capacitors. What is public of this floor; nothing else is imported from outside the core.
export * from './bank.js';
export * from './energy.js';
export * from './equalise.js';
