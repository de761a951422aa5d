// Every threshold of the trade, once, and what a house may choose. What is public of this floor; nothing else is imported from outside the core.
export * from './house-rules.js';
export * from './rule-settings.js';
