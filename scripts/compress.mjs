import { readdirSync, statSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';

const compress = promisify(brotliCompress);
const TEXT = /\.(js|css|html|svg|webmanifest)$/;
/** A smaller file gains nothing, bytes. */
const LEAST = 600;

/** Lays beside each text of a folder what it is over the wire, as small as it gets: a server that does it at every request has no time for that. */
export async function compressFolder(folder) {
  const files = readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && TEXT.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((file) => statSync(file).size >= LEAST);
  await Promise.all(
    files.map(async (file) => {
      const text = await readFile(file);
      const params = {
        [constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_TEXT,
        [constants.BROTLI_PARAM_SIZE_HINT]: text.length,
      };
      await writeFile(`${file}.br`, await compress(text, { params }));
    }),
  );
}
