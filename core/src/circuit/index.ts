// The circuit of a rescue, and its solution. Other floors import this file alone.
export * from './circuit.js';
export * from './solve-dc.js';
export * from './rescue.js';
