import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { pino } from 'pino';
import supertest from 'supertest';
import { createApp } from '../src/http/app.js';
import { streamHub } from '../src/http/stream-hub.js';
import { sharedServer } from './shared-server.js';
import { noInstruments } from './no-instruments.js';

const PART = 'console.log("a part");';
const PARTS = ['main-AB3D.js', 'chunk-Dk9_-x.js', 'styles-HP55.css'];
const GUARDED = ['index.html', 'ngsw-worker.js', 'worker-RL45.js', 'light.js'];

describe('the web application', () => {
  let folder: string;
  let api: ReturnType<typeof supertest>;

  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'voltrek-web-'));
    for (const name of [...PARTS, ...GUARDED]) await writeFile(join(folder, name), PART);
    await writeFile(join(folder, 'main-AB3D.js.br'), brotliCompressSync(PART));
    await writeFile(join(folder, 'ngsw.json'), '{}');
    const { database } = await sharedServer();
    api = supertest(
      createApp({
        ...{ database, hub: streamHub(), log: pino({ level: 'silent' }), webFolder: folder },
        instruments: await noInstruments(database),
      }),
    );
  });
  afterAll(() => rm(folder, { recursive: true }));

  it('is sent as it was compressed when it was built, to whoever takes that', async () => {
    const packed = await api.get('/main-AB3D.js').set('Accept-Encoding', 'gzip, br').expect(200);
    expect(packed.headers['content-encoding']).toBe('br');
    expect(packed.headers['content-type']).toContain('javascript');
    expect(packed.headers.vary).toContain('Accept-Encoding');
    const plain = await api.get('/main-AB3D.js').set('Accept-Encoding', 'identity').expect(200);
    expect(plain.headers['content-encoding']).toBeUndefined();
    expect(plain.text).toBe(PART);
  });

  it('has parts that never change under their names, with few headers', async () => {
    for (const name of PARTS) {
      const { headers } = await api.get(`/${name}`).expect(200);
      expect(headers['cache-control']).withContext(name).toContain('immutable');
      expect(headers['x-content-type-options']).withContext(name).toBe('nosniff');
      expect(headers['cross-origin-resource-policy']).withContext(name).toBe('same-origin');
      expect(headers['content-security-policy']).withContext(name).toBeUndefined();
    }
  });

  it('has a policy on everything that runs by itself: its page under any address, and its workers', async () => {
    for (const path of ['/', '/board', '/job/x/plan', '/main-AB3D', ...GUARDED.map((name) => `/${name}`)]) {
      const { headers } = await api.get(path).expect(200);
      const policy = headers['content-security-policy']!.split(';');
      expect(policy).withContext(path).toContain("script-src 'self'");
      expect(policy).withContext(path).toContain("style-src 'self'");
      expect(headers['cache-control'] ?? '')
        .withContext(path)
        .not.toContain('immutable');
    }
  });

  it('is asked for again where it tells of a newer version', async () => {
    for (const path of ['/ngsw.json', '/ngsw-worker.js', '/board'])
      expect((await api.get(path).expect(200)).headers['cache-control'])
        .withContext(path)
        .toBe('no-cache');
  });
});
