import type { RowFault } from '@voltrek/contracts';
import { type DocumentForm, rowsOfDocument } from '../files/document.js';
import type { FoundRow } from '../files/found-row.js';

/** How the atlas calls itself. */
export const ATLAS_FORM: DocumentForm = { format: 'voltrek-atlas', version: 2, list: 'machines' };

/** Words of the first version that are others now, as they stand in its documents. */
const OF_VERSION_1: readonly (readonly [was: string, now: string])[] = [
  ['"blocks"', '"batteries"'],
  ['"block"', '"battery"'],
  ['"block-', '"battery-'],
];

/**
 * Reads a document of machines, of this version or the first, laid out in any way. Machines come out unchecked, one by one; faults of the
 * document are told by line.
 */
export function parseJson(given: string, faults: RowFault[]): Generator<FoundRow> {
  const isFirst = /^[^\n]{0,200}"version"\s*:\s*1\b/.test(given);
  if (!isFirst) return rowsOfDocument(given, ATLAS_FORM, faults);
  const content = OF_VERSION_1.reduce((text, [was, now]) => text.replaceAll(was, now), given);
  return rowsOfDocument(content, { ...ATLAS_FORM, version: 1 }, faults);
}
