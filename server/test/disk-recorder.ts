import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import { isMainThread } from 'node:worker_threads';
import type { DiskCall } from './disk.js';

/**
 * Writes down what the thread of the embedded database asks of its disk, call by call: `node --import` of this file, with where to write in
 * DISK_TRACE and whose files in DISK_FOLDER.
 */
const trace = process.env.DISK_TRACE;
const root = process.env.DISK_FOLDER;

if (!isMainThread && trace && root) {
  const real = { ...fs };
  const out = real.openSync(trace, 'a');
  const say = (call: DiskCall): void => void real.writeSync(out, `${JSON.stringify(call)}\n`);
  const within = (path: unknown): string | null => {
    const text = String(path);
    return text.startsWith(`${root}/`) ? text.slice(root.length + 1) : text === root ? '' : null;
  };
  const open = new Map<number, string>();

  fs.openSync = ((path: fs.PathLike, flags?: fs.OpenMode, mode?: fs.Mode) => {
    const own = within(path);
    const isNew = own !== null && !real.existsSync(path);
    const wasWhole = own !== null && !isNew && real.statSync(path).isFile();
    const fd = real.openSync(path, flags ?? 'r', mode);
    if (own === null) return fd;
    open.set(fd, own);
    if (isNew) say({ do: 'create', path: own });
    const truncates = typeof flags === 'number' ? (flags & fs.constants.O_TRUNC) !== 0 : flags === 'w';
    if (wasWhole && truncates) say({ do: 'truncate', path: own, length: 0 });
    say({ do: 'open', fd, path: own });
    return fd;
  }) as typeof fs.openSync;
  fs.closeSync = (fd) => {
    if (open.delete(fd)) say({ do: 'close', fd });
    real.closeSync(fd);
  };
  fs.writeSync = ((fd: number, data: NodeJS.ArrayBufferView, ...rest: unknown[]) => {
    const { position, length, offset } = placeOf(rest);
    const written = (real.writeSync as (...all: unknown[]) => number)(fd, data, ...rest);
    if (open.has(fd)) {
      if (position === null) throw new Error('a write without its place cannot be told');
      const bytes = Buffer.from(data.buffer, data.byteOffset + offset, Math.min(written, length ?? written));
      say({ do: 'write', fd, position, data: bytes.toString('base64') });
    }
    return written;
  }) as typeof fs.writeSync;
  fs.ftruncateSync = (fd, length) => {
    real.ftruncateSync(fd, length);
    const path = open.get(fd);
    if (path !== undefined) say({ do: 'ftruncate', fd, length: length ?? 0 });
  };
  fs.truncateSync = ((path: fs.PathLike, length?: number) => {
    real.truncateSync(path, length);
    const own = within(path);
    if (own !== null) say({ do: 'truncate', path: own, length: length ?? 0 });
  }) as typeof fs.truncateSync;
  fs.fsyncSync = (fd) => {
    real.fsyncSync(fd);
    if (open.has(fd)) say({ do: 'fsync', fd });
  };
  fs.renameSync = (from, to) => {
    real.renameSync(from, to);
    const [was, is] = [within(from), within(to)];
    if (was !== null && is !== null) say({ do: 'rename', from: was, to: is });
  };
  fs.unlinkSync = (path) => {
    real.unlinkSync(path);
    const own = within(path);
    if (own !== null) say({ do: 'unlink', path: own });
  };
  fs.mkdirSync = ((path: fs.PathLike, options?: fs.MakeDirectoryOptions) => {
    const made = real.mkdirSync(path, options);
    const own = within(path);
    if (own !== null) say({ do: 'mkdir', path: own });
    return made;
  }) as typeof fs.mkdirSync;
  fs.rmdirSync = (path) => {
    real.rmdirSync(path);
    const own = within(path);
    if (own !== null) say({ do: 'rmdir', path: own });
  };
  syncBuiltinESMExports();
}

/** Returns the target of a write, however it was asked for: by offset, length and place, or by an object of them. */
function placeOf(rest: readonly unknown[]): {
  offset: number;
  length: number | null;
  position: number | null;
} {
  const [first, length, position] = rest;
  const of =
    typeof first === 'object' && first !== null
      ? (first as { offset?: number; length?: number; position?: number | bigint | null })
      : { offset: first as number, length: length as number, position: position as number | bigint };
  return {
    offset: of.offset ?? 0,
    length: of.length ?? null,
    position: of.position == null ? null : Number(of.position),
  };
}
