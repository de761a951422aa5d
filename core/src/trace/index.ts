// A recording of a crank, read. The door of this floor: nothing else of it is imported from outside.
export * from './recording.js';
export * from './analyse.js';
export * from './strength.js';
