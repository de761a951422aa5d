import type { RowFault } from '@voltrek/contracts';
import { type DocumentForm, rowsOfDocument } from '../files/document.js';
import type { FoundRow } from '../files/found-row.js';
import type { TextWindow } from '../files/text-window.js';

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
 * document carry their line.
 */
export async function* parseJson(window: TextWindow, faults: RowFault[]): AsyncGenerator<FoundRow> {
  const isFirst = /^[^\n]{0,200}"version"\s*:\s*1\b/.test(window.text);
  yield* isFirst
    ? rowsOfDocument(window, { ...ATLAS_FORM, version: 1 }, faults, (text) =>
        OF_VERSION_1.reduce((row, [was, now]) => row.replaceAll(was, now), text),
      )
    : rowsOfDocument(window, ATLAS_FORM, faults);
}
