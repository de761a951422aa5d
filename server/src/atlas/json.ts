import type { RowFault } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import { type DocumentForm, documentEnds, readDocument } from '../files/document.js';
import type { FoundRow } from '../files/found-row.js';

/** How the atlas calls itself. */
export const ATLAS_FORM: DocumentForm = { format: 'voltrek-atlas', version: 2, list: 'machines' };

/** Words of the first version that are others now, as they stand in its documents. */
const OF_VERSION_1: readonly (readonly [was: string, now: string])[] = [
  ['"blocks"', '"batteries"'],
  ['"block"', '"battery"'],
  ['"block-', '"battery-'],
];

/** Machines as one JSON document, one machine a line. */
export function toJson(machines: readonly Machine[]): string {
  const [head, tail] = documentEnds(ATLAS_FORM);
  return `${head}${machines.map((m) => JSON.stringify(m)).join(',\n')}${tail}`;
}

/**
 * Reads what `toJson` writes, or wrote in its first version, laid out in any way. Machines come out unchecked; faults of the document are
 * told by line.
 */
export function parseJson(given: string): { rows: FoundRow[]; faults: RowFault[] } {
  const isFirst = /^[^\n]{0,200}"version"\s*:\s*1\b/.test(given);
  if (!isFirst) return readDocument(given, ATLAS_FORM);
  const content = OF_VERSION_1.reduce((text, [was, now]) => text.replaceAll(was, now), given);
  return readDocument(content, { ...ATLAS_FORM, version: 1 });
}
