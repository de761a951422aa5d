import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));

/** The database is compiled as it is used, and only roughly: a server of a test ends before a better code has paid for itself. */
const SHORT_LIVED = ['--liftoff-only', '--wasm-lazy-compilation'];

/** The real server on a data folder and port of its own. */
export class TestServer {
  private process: ChildProcess | undefined;

  private constructor(
    readonly folder: string,
    readonly port: number,
  ) {}

  /** On a folder that holds nothing yet. */
  static async empty(): Promise<TestServer> {
    return new TestServer(await mkdtemp(join(tmpdir(), 'voltrek-e2e-')), await freePort());
  }

  /** On a copy of the demo's data as its first start made it. */
  static async ofDemo(): Promise<TestServer> {
    const server = await TestServer.empty();
    await cp(process.env.VOLTREK_E2E_DEMO!, server.folder, { recursive: true });
    return server;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Starts it and waits until it says it is ready. Resolves with what it printed when it ends before that. */
  async start(...args: string[]): Promise<{ ready: boolean; output: string; code: number | null }> {
    return this.startWith({}, ...args);
  }

  /** The same with settings in its environment. */
  async startWith(
    settings: Readonly<Record<string, string>>,
    ...args: string[]
  ): Promise<{ ready: boolean; output: string; code: number | null }> {
    const child = spawn(
      process.execPath,
      [...SHORT_LIVED, 'server/dist/src/main.js', '--port', String(this.port), ...args],
      {
        cwd: ROOT,
        env: { ...process.env, VOLTREK_DATA: this.folder, VOLTREK_LOG: 'warn', ...settings },
      },
    );
    this.process = child;
    let output = '';
    return new Promise((done) => {
      const take = (chunk: Buffer): void => {
        output += chunk.toString();
        if (output.includes('is ready at')) done({ ready: true, output, code: null });
      };
      child.stdout.on('data', take);
      child.stderr.on('data', take);
      child.on('close', (code) => done({ ready: false, output, code }));
    });
  }

  /** Ends it with a signal and waits until it is gone. */
  async stop(signal: NodeJS.Signals = 'SIGTERM'): Promise<number | null> {
    const child = this.process;
    if (child?.exitCode !== null || child.signalCode !== null) return child?.exitCode ?? null;
    const gone = once(child, 'exit');
    child.kill(signal);
    await gone;
    return child.exitCode;
  }

  /** Runs a command on its folder while it is stopped. Resolves with its output. */
  async house(...args: string[]): Promise<string> {
    const child = spawn(process.execPath, ['server/dist/src/house/cli.js', ...args], {
      cwd: ROOT,
      env: { ...process.env, VOLTREK_DATA: this.folder },
    });
    let output = '';
    child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()));
    child.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()));
    await once(child, 'close');
    return output;
  }

  /** A second server on the same folder, at another port. */
  async twin(): Promise<TestServer> {
    return new TestServer(this.folder, await freePort());
  }

  async remove(): Promise<void> {
    await this.stop('SIGKILL');
    await rm(this.folder, { recursive: true, force: true });
  }
}

async function freePort(): Promise<number> {
  const check = createServer().listen(0, '127.0.0.1');
  await once(check, 'listening');
  const address = check.address();
  check.close();
  if (address === null || typeof address === 'string') throw new Error('no port');
  return address.port;
}
