// Classes of machine that stand for one the atlas does not know: their drawing, likely places, typical data. The door of this floor: nothing else of it is imported from outside.
export * from './class-entry.js';
export * from './likely-places.js';
export * from './template.js';
