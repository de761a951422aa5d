// Words that the screens and the command line have in common.
export * from './answer-words.js';
export * from './field-words.js';
export * from './follow-up-words.js';
export * from './hazard-words.js';
export * from './machine-fault-words.js';
export * from './mirrored-words.js';
export * from './refusal-words.js';
export * from './written-case-words.js';
