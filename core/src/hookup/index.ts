// Clamps: what hands do, what it risks, in which order. The door of this floor: nothing else of it is imported from outside.
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
