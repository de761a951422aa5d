import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { demoDatabase } from './test-database.js';
import { createApp } from '../src/http/app.js';
import { streamHub } from '../src/http/stream-hub.js';
import { fuzz } from './fuzz.js';
import { noInstruments } from './no-instruments.js';

describe('requests of every route, right and broken', () => {
  it('are each answered: none with a failure of the server, and each refusal with a problem document', async () => {
    const database = await demoDatabase();
    const instruments = await noInstruments(database);
    const app = createApp({
      ...{ database, hub: streamHub(), log: pino({ level: 'silent' }), instruments },
      // Here nobody is held back: every answer is looked at.
      perMinute: { requests: 1e9, heavy: 1e9, signIn: 1e9 },
    });
    const server = createServer(app);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as AddressInfo;
    const { failures, byClass } = await fuzz(`http://127.0.0.1:${port}`, 500, 41);
    expect(failures).toEqual([]);
    // Both are gone through: what is taken, and what is refused.
    expect(byClass.get(2)).toBeGreaterThan(50);
    expect(byClass.get(4)).toBeGreaterThan(50);
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
    await database.close();
  });
});
