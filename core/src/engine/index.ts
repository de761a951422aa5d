// Starter and engine. What is public of this floor; nothing else is imported from outside the core.
export * from './engine.js';
