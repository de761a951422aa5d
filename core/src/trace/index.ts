// A recording of a crank, read. Other floors import this file alone.
export * from './recording.js';
export * from './analyse.js';
export * from './strength.js';
