// Sources, leads, waits and odds. Other floors import this file alone.
export * from './clamp-points.js';
export * from './options.js';
export * from './rank.js';
export * from './plan-case.js';
export * from './plan-inputs.js';
export * from './wait.js';
export * from './lead-grid.js';
export * from './what-helps.js';
export * from './compare.js';
export * from './source-strength.js';
export * from './hand-minutes.js';
export * from './ways.js';
export * from './frontier.js';
export * from './charge-options.js';
