// Causes, checks, and what they tell. Other floors import this file alone.
export * from './vocabulary.js';
export * from './reading.js';
export * from './string-reading.js';
export * from './causes.js';
export * from './draw-hidden.js';
export * from './hidden.js';
export * from './checks/index.js';
export * from './walk-round.js';
export * from './measures.js';
export * from './probes.js';
export * from './battery-condition.js';
export * from './repairs.js';
export * from './belief.js';
export * from './misfit.js';
export * from './possible.js';
