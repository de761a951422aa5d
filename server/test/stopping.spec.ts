import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, MAIN } from './processes.js';

/** A stop takes no longer, ms. */
const STOP_MS = 5_000;

async function ready(child: ChildProcess): Promise<void> {
  let said = '';
  child.stdout!.on('data', (text: Buffer) => (said += text.toString()));
  while (!said.includes('is ready')) await once(child.stdout!, 'data');
}

describe('a server that is told to stop', () => {
  it('does so within five seconds, whatever is open, and starts at once on the same folder @long', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'voltrek-stop-'));
    const port = await freePort();
    const start = (): ChildProcess =>
      spawn(process.execPath, [MAIN, '--empty', '--port', String(port)], {
        env: { ...process.env, VOLTREK_DATA: folder, VOLTREK_LOG: 'silent' },
        stdio: ['ignore', 'pipe', 'pipe'],
      });
    const server = start();
    await ready(server);
    const streams = await Promise.all([
      fetch(`http://127.0.0.1:${port}/api/instruments/stream`),
      fetch(`http://127.0.0.1:${port}/api/stream`),
    ]);
    expect(streams.map((s) => s.status)).toEqual([200, 200]);
    const began = Date.now();
    server.kill('SIGTERM');
    const [code] = (await once(server, 'exit')) as [number];
    expect(Date.now() - began).toBeLessThan(STOP_MS);
    expect(code).toBe(0);
    const again = start();
    await ready(again);
    again.kill('SIGKILL');
    await once(again, 'exit');
    await rm(folder, { recursive: true });
  });

  it('answers a browser that comes while it starts with a page that asks again, and a program in its own way', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'voltrek-start-'));
    const port = await freePort();
    const server = spawn(process.execPath, [MAIN, '--empty', '--port', String(port)], {
      env: { ...process.env, VOLTREK_DATA: folder, VOLTREK_LOG: 'silent' },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    const isReady = ready(server);
    const ask = (accept: string): Promise<Response | null> =>
      fetch(`http://127.0.0.1:${port}/board`, { headers: { accept } }).catch(() => null);
    // The port is taken before the database opens.
    let page: Response | null = null;
    while (!(page = await ask('text/html'))) await new Promise((again) => setTimeout(again, 10));
    expect(page.status).toBe(503);
    expect(page.headers.get('content-type')).toContain('text/html');
    const text = await page.text();
    expect(text).toContain('http-equiv="refresh"');
    expect(text).not.toContain('<script');
    const problem = await ask('application/json');
    expect(problem!.headers.get('content-type')).toContain('application/problem+json');
    await isReady;
    expect((await ask('text/html'))!.status).toBe(200);
    server.kill('SIGTERM');
    await once(server, 'exit');
    await rm(folder, { recursive: true });
  });
});
