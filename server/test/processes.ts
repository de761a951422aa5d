import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { type AddressInfo, createServer } from 'node:net';
import { fileURLToPath } from 'node:url';

/** The server as it is started. */
export const MAIN = fileURLToPath(new URL('../src/main.js', import.meta.url));

/** A port of this machine that nobody has. */
export async function freePort(): Promise<number> {
  const server = createServer();
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}

/**
 * Starts the server in a process of its own and waits until it answers.
 *
 * @param args of the process, before those of the server
 * @throws Error with what it said when it ends before
 */
export async function startServer(
  port: number,
  env: Readonly<Record<string, string>>,
  args: readonly string[] = [],
): Promise<ChildProcess> {
  const child = spawn(process.execPath, [...args, MAIN, '--port', String(port)], {
    env: { ...process.env, VOLTREK_LOG: 'silent', ...env },
  });
  let said = '';
  child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
  await new Promise<void>((ready, failed) => {
    child.stdout.on('data', (chunk: Buffer) => {
      if (chunk.toString().includes('is ready at')) ready();
    });
    child.once('exit', () => failed(new Error(`it did not start: ${said}`)));
  });
  return child;
}
