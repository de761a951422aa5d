// Classes of machine that stand for one the atlas does not know: their drawing, likely places, typical data. What is public of this floor; nothing else is imported from outside the core.
export * from './class-entry.js';
export * from './likely-places.js';
export * from './template.js';
