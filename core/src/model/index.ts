// Every default of the electrical model, with range and reason. What is public of this floor; nothing else is imported from outside the core.
export * from './parameters.js';
