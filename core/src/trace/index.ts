// A recording of a crank, read. What is public of this floor; nothing else is imported from outside the core.
export * from './recording.js';
export * from './analyse.js';
export * from './strength.js';
