// Every default of the electrical model, with range and reason. The door of this floor: nothing else of it is imported from outside.
export * from './parameters.js';
