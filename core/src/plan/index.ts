// Which source, which leads, how long to wait, how surely. What is public of this floor; nothing else is imported from outside the core.
export * from './casualty-batteries.js';
export * from './clamp-points.js';
export * from './options.js';
export * from './rank.js';
export * from './draws.js';
export * from './odds.js';
export * from './plan-case.js';
export * from './plan-inputs.js';
export * from './wait.js';
export * from './lead-grid.js';
export * from './what-helps.js';
export * from './compare.js';
export * from './tries.js';
export * from './hand-minutes.js';
export * from './ways.js';
export * from './frontier.js';
export * from './charge-options.js';
