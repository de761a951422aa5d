// The circuit of a rescue, and its solution. What is public of this floor; nothing else is imported from outside the core.
export * from './circuit.js';
export * from './solve-dc.js';
export * from './rescue.js';
