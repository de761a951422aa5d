import { piecesOf, TextWindow } from '../src/files/text-window.js';

/** A file as it would come from the disk, in pieces of so many bytes; in one where none is said. */
export function windowOn(file: string | Uint8Array, pieceBytes?: number): TextWindow {
  const bytes = typeof file === 'string' ? new TextEncoder().encode(file) : file;
  const size = pieceBytes ?? Math.max(1, bytes.length);
  async function* parts(): AsyncGenerator<Uint8Array> {
    for (let from = 0; from < bytes.length; from += size) {
      await Promise.resolve();
      yield bytes.subarray(from, from + size);
    }
  }
  return new TextWindow(piecesOf(parts()), pieceBytes === undefined ? undefined : 1);
}
