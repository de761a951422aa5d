// The machines that this may be, and what is read from them. Other floors import this file alone.
export * from './casualty-batteries.js';
export * from './unknowns.js';
export * from './copies.js';
export * from './population.js';
export * from './tries.js';
export * from './carry.js';
export * from './odds.js';
export type { StandingVehicle, VehicleUse } from './standing.js';
export * from './watch.js';
