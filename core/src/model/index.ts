// Every default of the electrical model, with range and reason. Other floors import this file alone.
export * from './parameters.js';
