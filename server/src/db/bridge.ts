import { Duplex } from 'node:stream';

/** Gives what PostgreSQL's protocol says to whole messages of it, and receives the answers as they come. */
export type Exchange = (messages: Uint8Array, onAnswer: (data: Uint8Array) => void) => Promise<void>;

/** A message that ends a connection: the database behind the bridge has one session, which stays. */
const TERMINATE = 0x58;
/** Rolls back the transaction of a broken connection and forgets its prepared statements before the next one. */
const START_OVER = simpleQuery('ROLLBACK; DEALLOCATE ALL');

function simpleQuery(text: string): Uint8Array {
  const body = Buffer.from(`${text}\0`);
  const message = Buffer.alloc(5 + body.length);
  message.write('Q');
  message.writeInt32BE(4 + body.length, 1);
  body.copy(message, 5);
  return message;
}

/**
 * The connection of a PostgreSQL driver to a database that has no socket: what the driver writes, always whole messages, is exchanged for
 * answers. What a driver asks of a network connection beside that is there, and does nothing.
 */
export class Bridge extends Duplex {
  constructor(private readonly exchange: Exchange) {
    super();
  }

  connect(): this {
    setImmediate(() => this.emit('connect'));
    return this;
  }
  setNoDelay(): this {
    return this;
  }
  setKeepAlive(): this {
    return this;
  }
  ref(): this {
    return this;
  }
  unref(): this {
    return this;
  }

  override _read(): void {
    // Answers are pushed as they come.
  }

  override _write(chunk: Buffer, _encoding: string, done: (error?: Error | null) => void): void {
    this.send(chunk, done);
  }

  /** The messages of one question are written together: they go over as one. */
  override _writev(
    chunks: readonly { readonly chunk: Buffer }[],
    done: (error?: Error | null) => void,
  ): void {
    this.send(Buffer.concat(chunks.map(({ chunk }) => chunk)), done);
  }

  override _final(done: (error?: Error | null) => void): void {
    this.push(null);
    done();
  }

  override _destroy(error: Error | null, done: (error?: Error | null) => void): void {
    this.exchange(START_OVER, () => undefined).then(
      () => done(error),
      () => done(error),
    );
  }

  private send(messages: Buffer, done: (error?: Error | null) => void): void {
    if (messages[0] === TERMINATE) {
      done();
      return;
    }
    this.exchange(messages, (data) => this.push(data)).then(
      () => done(),
      (error: unknown) => done(error as Error),
    );
  }
}
