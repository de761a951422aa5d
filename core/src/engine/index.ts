// Starter and engine. Other floors import this file alone.
export * from './engine.js';
