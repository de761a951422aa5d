// Every threshold of the trade, once, and what a house may choose. The door of this floor: nothing else of it is imported from outside.
export * from './house-rules.js';
export * from './rule-settings.js';
