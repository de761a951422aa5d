import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { type FileHandle, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';

/** Rows laid aside on the disk, in order: there may be more of them than memory should hold. */
export class Spool<T> {
  private constructor(
    private readonly path: string,
    private readonly file: FileHandle,
  ) {}

  static async open<T>(): Promise<Spool<T>> {
    const path = join(tmpdir(), `voltrek-spool-${randomUUID()}`);
    return new Spool<T>(path, await open(path, 'wx', 0o600));
  }

  /** Rows are what JSON can hold. */
  async add(rows: readonly T[]): Promise<void> {
    if (rows.length > 0) await this.file.write(rows.map((row) => `${JSON.stringify(row)}\n`).join(''));
  }

  /** As they were added. */
  async *rows(): AsyncGenerator<T> {
    for await (const line of createInterface({ input: createReadStream(this.path), crlfDelay: Infinity }))
      yield JSON.parse(line) as T;
  }

  async remove(): Promise<void> {
    await this.file.close();
    await rm(this.path, { force: true });
  }
}

/** Some at a time of what comes one by one. */
export async function* batchesOf<T>(rows: AsyncIterable<T>, size: number): AsyncGenerator<T[]> {
  let batch: T[] = [];
  for await (const row of rows) {
    batch.push(row);
    if (batch.length < size) continue;
    yield batch;
    batch = [];
  }
  if (batch.length > 0) yield batch;
}
