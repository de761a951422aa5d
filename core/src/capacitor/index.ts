// Banks of capacitors. Other floors import this file alone.
export * from './bank.js';
export * from './energy.js';
export * from './equalise.js';
