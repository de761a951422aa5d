export * from './text.js';
export * from './job-event.js';
export * from './new-call.js';
export * from './rule-setting.js';
export * from './wire.js';
export * from './refusal-words.js';
export * from './hazard-words.js';
export { ValidationError } from 'yup';
