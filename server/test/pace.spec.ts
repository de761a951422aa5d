import type { Problem } from '@voltrek/contracts';
import { pino } from 'pino';
import supertest from 'supertest';
import { createApp } from '../src/http/app.js';
import { streamHub } from '../src/http/stream-hub.js';
import { sharedServer } from './shared-server.js';
import { noInstruments } from './no-instruments.js';

describe('an address that sends more than anybody needs', () => {
  const withPace = async (requests: number, heavy: number) => {
    const { database } = await sharedServer();
    return supertest(
      createApp({
        ...{ database, hub: streamHub(), log: pino({ level: 'silent' }) },
        instruments: await noInstruments(database),
        perMinute: { requests, heavy, signIn: 2 },
      }),
    );
  };

  it('is told to wait, and how long, once it has sent so many in a minute', async () => {
    const api = await withPace(3, 60);
    for (let i = 0; i < 3; i++) await api.get('/api/health').expect(200);
    const { body, headers } = (await api.get('/api/health').expect(429)) as {
      body: Problem;
      headers: Record<string, string>;
    };
    expect(body.detail).toContain('nothing is lost');
    expect(Number(headers['retry-after'])).toBeGreaterThan(0);
    expect(Number(headers['retry-after'])).toBeLessThanOrEqual(60);
  });

  it('is held back sooner where each request takes the whole server, and only there', async () => {
    const api = await withPace(1000, 2);
    const statuses: number[] = [];
    for (let i = 0; i < 4; i++) statuses.push((await api.post('/api/files/crew/preview')).status);
    expect(statuses.slice(0, 2).every((status) => status !== 429)).toBeTrue();
    expect(statuses.slice(2)).toEqual([429, 429]);
    await api.get('/api/crew').expect(200);
  });
});
