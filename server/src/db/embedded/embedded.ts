import { Worker } from 'node:worker_threads';
import type { PGlite } from '@electric-sql/pglite';
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm';
import type { Exchange } from '../bridge.js';

export const EXTENSIONS = { pg_trgm };

/** Messages to the thread of the embedded database. */
export type ToEmbedded =
  | { readonly kind: 'exchange'; readonly messages: Uint8Array }
  | { readonly kind: 'close' };

/** Messages from it. */
export type FromEmbedded =
  | { readonly kind: 'open' }
  /** The folder cannot be opened. */
  | { readonly kind: 'unfit'; readonly why: string; readonly code?: string }
  /** All answers to what was sent, together: a message between threads costs more than its bytes. */
  | { readonly kind: 'answered'; readonly data: readonly Uint8Array[] }
  | { readonly kind: 'failed'; readonly why: string }
  /** The disk refuses what is written. */
  | { readonly kind: 'lost'; readonly why: string }
  | { readonly kind: 'closed' };

/** An embedded database that is open. */
export interface Embedded {
  readonly exchange: Exchange;
  readonly close: () => Promise<void>;
}

/** Exchanges with a database of this very thread. One exchange at a time. */
export const exchangeOf =
  (client: PGlite): Exchange =>
  (messages, onAnswer) =>
    client.runExclusive(() =>
      client.execProtocolRawStream(messages, {
        // A copy: the given buffer lies in the database's own memory, which is reused, and is as large as all of it.
        onRawData: (data) => onAnswer(data.slice()),
      }),
    );

/**
 * Opens the embedded database of a folder in a thread of its own.
 *
 * @param onLost called when the disk refuses what is written, or the thread is gone: nothing may be acknowledged any more
 * @throws Error as the database says it; with the `code` of the disk's refusal where there is one
 */
export async function openEmbedded(pgFolder: string, onLost: (error: Error) => void): Promise<Embedded> {
  const worker = new Worker(new URL('./embedded-main.js', import.meta.url), { workerData: { pgFolder } });
  const tell = (message: ToEmbedded, owned: readonly ArrayBuffer[] = []): void =>
    worker.postMessage(message, owned);
  /** The callers that wait for the answers to the last request. */
  let asked: {
    onAnswer: (data: Uint8Array) => void;
    done: () => void;
    failed: (error: Error) => void;
  } | null = null;
  let closed: (() => void) | null = null;
  await new Promise<void>((opened, failed) => {
    worker.on('message', (message: FromEmbedded) => {
      switch (message.kind) {
        case 'open':
          return opened();
        case 'unfit':
          return failed(Object.assign(new Error(message.why), message.code && { code: message.code }));
        case 'answered':
          for (const data of message.data) asked?.onAnswer(data);
          return asked?.done();
        case 'failed':
          return asked?.failed(new Error(message.why));
        case 'lost':
          return onLost(new Error(message.why));
        case 'closed':
          return closed?.();
      }
    });
    worker.on('error', (error) => {
      failed(error);
      if (!closed) onLost(error);
    });
  }).catch(async (error: unknown) => {
    await worker.terminate();
    throw error;
  });
  // One question after another: the answers carry no name.
  let last: Promise<unknown> = Promise.resolve();
  const exchange: Exchange = (messages, onAnswer) => {
    const turn = last.then(
      () =>
        new Promise<void>((done, failed) => {
          asked = { onAnswer, done, failed };
          // Given over, not cloned: a clone takes all of the pool along that the driver wrote them in.
          const own = new Uint8Array(messages);
          tell({ kind: 'exchange', messages: own }, [own.buffer]);
        }),
    );
    last = turn.catch(() => undefined);
    return turn;
  };
  return {
    exchange,
    close: async () => {
      await last;
      await new Promise<void>((done) => {
        closed = done;
        tell({ kind: 'close' });
      });
      await worker.terminate();
    },
  };
}
