// The circuit of a rescue, and its solution. The door of this floor: nothing else of it is imported from outside.
export * from './circuit.js';
export * from './solve-dc.js';
export * from './rescue.js';
