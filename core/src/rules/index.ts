// Every threshold of the trade, once, and what a house may choose. Other floors import this file alone.
export * from './house-rules.js';
export * from './rule-settings.js';
