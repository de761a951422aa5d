// Clamps: what hands do, what it risks, in which order. Other floors import this file alone.
export * from './judge/state.js';
export * from './actions.js';
export * from './judge/contact.js';
export * from './order/order.js';
export * from './order/make-safe.js';
export * from './judge/hazard.js';
export * from './judge/hazards.js';
export * from './order/safest-order.js';
export * from './order/replan.js';
export * from './order/acts-between.js';
export * from './order/overruled.js';
export * from './order/fitting.js';
export * from './order/repair-order.js';
export * from './judge/stories.js';
export * from './judge/circumstances.js';
export * from './judge/guard-lamp.js';
export * from './earth.js';
