// The verdict on the battery, and its ground. Other floors import this file alone.
export * from './case.js';
export * from './proof.js';
export * from './verdict.js';
export { CONDEMN_SHARE } from './rule.js';
export * from './conclude.js';
export * from './charge-plan.js';
export * from './replacement.js';
export * from './bank-instead.js';
export * from './trend.js';
