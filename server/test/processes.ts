import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { type AddressInfo, createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import type { CrewMember } from '@voltrek/contracts';

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
 * Starts the server in a process of its own, on a house without set-up, and waits until it answers.
 *
 * @param args of the process, before those of the server
 * @throws Error with what it said when it ends before
 */
export async function startServer(
  port: number,
  env: Readonly<Record<string, string>>,
  args: readonly string[] = [],
): Promise<ChildProcess> {
  const child = spawn(process.execPath, [...args, MAIN, '--empty', '--port', String(port)], {
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

/** Puts a crew lead and a van into a house that nobody has set up. @returns the lead's id */
export async function setUpHouse(url: string): Promise<string> {
  const post = async (path: string, body: unknown): Promise<unknown> => {
    const answer = await fetch(url + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
    return answer.json();
  };
  const [lead] = (await post('/api/crew', {
    name: 'Ana Test',
    role: 'crew-lead',
    retired: false,
  })) as readonly CrewMember[];
  await post('/api/vans', { name: 'Van Test', retired: false });
  return lead!.id;
}
