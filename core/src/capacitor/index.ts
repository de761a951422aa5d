// Banks of capacitors. The door of this floor: nothing else of it is imported from outside.
export * from './bank.js';
export * from './energy.js';
export * from './equalise.js';
