// Words that the screens and the command line have in common.
export * from './answer-words.js';
export * from './fault-words.js';
export * from './follow-up-words.js';
export * from './hazard-words.js';
export * from './mirrored-words.js';
export * from './refusal-words.js';
