import { closeSync, fsyncSync, openSync } from 'node:fs';
import type { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';

type ModuleOptions = Parameters<NodeFS['init']>[1];

/** The parts of the embedded database's file system that a sync goes through. */
interface SyncedModule {
  readonly NODEFS: {
    readonly stream_ops: { fsync?: (stream: { readonly nfd?: number; readonly node: unknown }) => number };
    readonly realPath: (node: unknown) => string;
  };
}

/**
 * A data folder whose syncs reach the disk. The database as it is packed leaves them out; with them in, PostgreSQL orders its own writes:
 * what is committed is on the disk before the commit is answered, and so are checkpoints and recovery.
 *
 * @param onFailed called when the disk refuses a sync. What the disk then holds is not known, so nothing may be acknowledged any more.
 */
export class SyncedFS extends NodeFS {
  constructor(
    folder: string,
    private readonly onFailed: (error: Error) => void,
  ) {
    super(folder);
  }

  override async init(pg: PGlite, options: ModuleOptions): Promise<{ emscriptenOpts: ModuleOptions }> {
    const { emscriptenOpts } = await super.init(pg, options);
    const hook = (module: unknown): void => {
      const { NODEFS } = module as SyncedModule;
      NODEFS.stream_ops.fsync = (stream) => {
        try {
          syncToDisk(stream.nfd, () => NODEFS.realPath(stream.node));
          return 0;
        } catch (error) {
          this.onFailed(error as Error);
          throw error;
        }
      };
    };
    return { emscriptenOpts: { ...emscriptenOpts, preRun: [...(emscriptenOpts.preRun ?? []), hook] } };
  }
}

/** A file by its open descriptor; a folder has none and is opened for it. */
function syncToDisk(descriptor: number | undefined, path: () => string): void {
  if (descriptor !== undefined) {
    fsyncSync(descriptor);
    return;
  }
  const folder = openSync(path(), 'r');
  try {
    fsyncSync(folder);
  } finally {
    closeSync(folder);
  }
}

/** How the database is started so that it syncs: its usual parameters without `-F`, which turns syncs off. */
export function syncedStart(usual: readonly string[]): string[] {
  return [...usual.filter((word) => word !== '-F'), '-c', 'fsync=on', '-c', 'wal_sync_method=fsync'];
}
