// Starter and engine. The door of this floor: nothing else of it is imported from outside.
export * from './engine.js';
