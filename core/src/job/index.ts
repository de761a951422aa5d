// The log of a job and everything folded out of it. What is public of this floor; nothing else is imported from outside the core.
export * from './events.js';
export * from './old-events.js';
export * from './reached-stage.js';
export * from './job.js';
export * from './apply.js';
export * from './queries.js';
export * from './hands.js';
export * from './refuse.js';
export * from './rescue-of-job.js';
export * from './kit-care.js';
export * from './kit-charge.js';
export * from './doubts.js';
export * from './sheet.js';
export * from './battery-of-job.js';
export * from './evidence-of-job.js';
export * from './rest-of-job.js';
export * from './drive-of-job.js';
