import { parentPort, workerData } from 'node:worker_threads';
import { PGlite } from '@electric-sql/pglite';
import { EXTENSIONS, exchangeOf } from './embedded.js';
import type { FromEmbedded, ToEmbedded } from './embedded.js';
import { SyncedFS, syncedStart } from './synced-fs.js';

/** The embedded database in a thread of its own: a sync that waits for the disk keeps nobody else waiting. */
const port = parentPort!;
const say = (message: FromEmbedded, owned: readonly ArrayBuffer[] = []): void =>
  port.postMessage(message, owned);
const { pgFolder } = workerData as { readonly pgFolder: string };

try {
  const client = await PGlite.create({
    fs: new SyncedFS(pgFolder, (error) => say({ kind: 'lost', why: error.message })),
    startParams: syncedStart(PGlite.defaultStartParams),
    extensions: EXTENSIONS,
  });
  const exchange = exchangeOf(client);
  port.on('message', (message: ToEmbedded) => {
    if (message.kind === 'close') {
      void client.close().then(
        () => say({ kind: 'closed' }),
        (error: unknown) => say({ kind: 'lost', why: String(error) }),
      );
      return;
    }
    const data: Uint8Array[] = [];
    exchange(message.messages, (part) => data.push(part)).then(
      () =>
        say(
          { kind: 'answered', data },
          data.map(({ buffer }) => buffer as ArrayBuffer),
        ),
      (error: unknown) => say({ kind: 'failed', why: String(error) }),
    );
  });
  say({ kind: 'open' });
} catch (error) {
  const { code, message } = error as NodeJS.ErrnoException;
  say({ kind: 'unfit', why: message, ...(code && { code }) });
}
