import { constants } from 'node:fs';
import { cp, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Random } from '@voltrek/core/quantities';

/** One thing that was asked of a disk; paths from the root of the recorded folder, '' for itself. */
export type DiskCall =
  | { readonly do: 'create'; readonly path: string }
  | { readonly do: 'open'; readonly fd: number; readonly path: string }
  | { readonly do: 'close' | 'fsync'; readonly fd: number }
  | { readonly do: 'write'; readonly fd: number; readonly position: number; readonly data: string }
  | { readonly do: 'ftruncate'; readonly fd: number; readonly length: number }
  | { readonly do: 'truncate'; readonly path: string; readonly length: number }
  | { readonly do: 'rename'; readonly from: string; readonly to: string }
  | { readonly do: 'unlink' | 'mkdir' | 'rmdir'; readonly path: string };

type Change =
  | { readonly do: 'write'; readonly position: number; readonly data: Buffer }
  | { readonly do: 'truncate'; readonly length: number };

/** A file, whatever names it has. */
interface Content {
  /** As far as it is sure; null: as the base has it under `base`. */
  sure: Buffer | null;
  readonly base: string | null;
  /** Asked for since, in order. */
  readonly unsure: Change[];
}

/** A change of the names in one folder. */
interface NameChange {
  readonly folder: string;
  readonly apply: (names: Map<string, Content>) => void;
}

/** The unit at which a disk tears a write, bytes. */
const SECTOR = 512;

/**
 * A disk of which no more is sure than what was synced: a sync of a file keeps its content, a sync of a folder keeps the names in it. It
 * begins as the base folder stands.
 */
export class Disk {
  private readonly names = new Map<string, Content>();
  private readonly sureNames = new Map<string, Content>();
  private readonly unsureNames: NameChange[] = [];
  private readonly folders = new Set<string>(['']);
  private readonly open = new Map<number, { readonly path: string; readonly content: Content | null }>();

  constructor(
    private readonly base: string,
    files: readonly string[],
    folders: readonly string[],
  ) {
    for (const path of files) {
      const content: Content = { sure: null, base: path, unsure: [] };
      this.names.set(path, content);
      this.sureNames.set(path, content);
    }
    for (const path of folders) this.folders.add(path);
  }

  /** @param keepsSyncs false: as if the program had never synced */
  async do(call: DiskCall, keepsSyncs = true): Promise<void> {
    switch (call.do) {
      case 'create': {
        const content: Content = { sure: Buffer.alloc(0), base: null, unsure: [] };
        this.name(call.path, (names) => names.set(call.path, content));
        return;
      }
      case 'open':
        this.open.set(call.fd, { path: call.path, content: this.names.get(call.path) ?? null });
        return;
      case 'close':
        this.open.delete(call.fd);
        return;
      case 'write':
        this.of(call.fd).unsure.push({
          do: 'write',
          position: call.position,
          data: Buffer.from(call.data, 'base64'),
        });
        return;
      case 'ftruncate':
        this.of(call.fd).unsure.push({ do: 'truncate', length: call.length });
        return;
      case 'truncate':
        this.names.get(call.path)?.unsure.push({ do: 'truncate', length: call.length });
        return;
      case 'fsync':
        if (keepsSyncs) await this.sync(call.fd);
        return;
      case 'rename': {
        const content = this.names.get(call.from);
        // A folder that is renamed is none of the database's ways.
        if (!content) throw new Error(`${call.from} is not known`);
        this.name(call.to, (names) => {
          names.delete(call.from);
          names.set(call.to, content);
        });
        return;
      }
      case 'unlink':
        this.name(call.path, (names) => names.delete(call.path));
        return;
      case 'mkdir':
        this.folders.add(call.path);
        return;
      case 'rmdir':
        return;
    }
  }

  /**
   * Writes the disk as it may be found after the power went now: of what was not synced some is there, some torn, some missing; of the
   * names of each folder as many as the folder had got to.
   */
  async cut(random: Random, into: string): Promise<void> {
    const names = new Map(this.sureNames);
    const gotTo = new Map<string, number>();
    const counts = new Map<string, number>();
    for (const { folder } of this.unsureNames) counts.set(folder, (counts.get(folder) ?? 0) + 1);
    for (const [folder, count] of counts) gotTo.set(folder, Math.floor(random() * (count + 1)));
    for (const { folder, apply } of this.unsureNames) {
      const left = gotTo.get(folder)!;
      if (left === 0) continue;
      gotTo.set(folder, left - 1);
      apply(names);
    }
    await rm(into, { recursive: true, force: true });
    for (const folder of [...this.folders].sort())
      await mkdir(join(into, folder), { recursive: true, mode: 0o700 });
    for (const [path, content] of names) {
      const file = join(into, path);
      if (content.sure === null && content.unsure.length === 0) {
        await cp(join(this.base, content.base!), file, { mode: constants.COPYFILE_FICLONE });
        continue;
      }
      const found = content.unsure.reduce(
        (bytes, change) => torn(bytes, change, random),
        await this.sureOf(content),
      );
      await writeFile(file, found, { mode: 0o600 });
    }
  }

  private name(path: string, apply: (names: Map<string, Content>) => void): void {
    apply(this.names);
    const folder = dirname(path);
    this.unsureNames.push({ folder: folder === '.' ? '' : folder, apply });
  }

  private of(fd: number): Content {
    const content = this.open.get(fd)?.content;
    if (!content) throw new Error(`nothing is open under ${fd}`);
    return content;
  }

  private async sureOf(content: Content): Promise<Buffer> {
    return content.sure ?? readFile(join(this.base, content.base!));
  }

  private async sync(fd: number): Promise<void> {
    const { path, content } = this.open.get(fd)!;
    if (content) {
      content.sure = content.unsure.splice(0).reduce(changed, await this.sureOf(content));
      return;
    }
    const stays = this.unsureNames.splice(0);
    for (const change of stays)
      if (change.folder === path) change.apply(this.sureNames);
      else this.unsureNames.push(change);
  }
}

function changed(bytes: Buffer, change: Change): Buffer {
  if (change.do === 'truncate') {
    const next = Buffer.alloc(change.length);
    bytes.copy(next, 0, 0, Math.min(bytes.length, change.length));
    return next;
  }
  const end = change.position + change.data.length;
  const next = end > bytes.length ? Buffer.concat([bytes, Buffer.alloc(end - bytes.length)]) : bytes;
  change.data.copy(next, change.position);
  return next;
}

/** A change that may have got to the disk, in part, or not. */
function torn(bytes: Buffer, change: Change, random: Random): Buffer {
  const luck = random();
  if (luck < 1 / 3) return bytes;
  // Synced data stays as it is: the next cut begins from it.
  const own = Buffer.from(bytes);
  if (luck < 2 / 3 || change.do === 'truncate') return changed(own, change);
  let found: Buffer = own;
  for (let from = 0; from < change.data.length; from += SECTOR)
    if (random() < 0.5)
      found = changed(found, {
        do: 'write',
        position: change.position + from,
        data: change.data.subarray(from, from + SECTOR),
      });
  return found;
}
