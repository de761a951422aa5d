// Clamps: what hands do, what it risks, in which order. What is public of this floor; nothing else is imported from outside the core.
export * from './state.js';
export * from './actions.js';
export * from './contact.js';
export * from './order.js';
export * from './make-safe.js';
export * from './hazard.js';
export * from './hazards.js';
export * from './safest-order.js';
export * from './replan.js';
export * from './overruled.js';
export * from './fitting.js';
export * from './stories.js';
export * from './circumstances.js';
export * from './guard-lamp.js';
export * from './earth.js';
