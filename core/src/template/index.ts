// Classes of machine that stand for one the atlas does not know: their drawing, likely places, typical data. Other floors import this file alone.
export * from './class-entry.js';
export * from './likely-places.js';
export * from './template-words.js';
export * from './template.js';
