// The verdict on the battery, and its ground. The door of this floor: nothing else of it is imported from outside.
export * from './case.js';
export * from './proof.js';
export * from './verdict.js';
export { CONDEMN_SHARE } from './rule.js';
export * from './conclude.js';
export * from './charge-plan.js';
export * from './replacement.js';
export * from './bank-instead.js';
export * from './trend.js';
