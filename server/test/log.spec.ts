import { Writable } from 'node:stream';
import express from 'express';
import { pino } from 'pino';
import supertest from 'supertest';
import { createApp } from '../src/http/app.js';
import { streamHub } from '../src/http/stream-hub.js';
import { HttpProblem, problemHandler } from '../src/http/problem.js';
import { noInstruments } from './no-instruments.js';
import { testDatabase } from './test-database.js';

describe('the log of the server', () => {
  const lines: Record<string, unknown>[] = [];
  const kept = new Writable({
    write: (chunk: Buffer, _encoding, done) => {
      lines.push(JSON.parse(chunk.toString()) as Record<string, unknown>);
      done();
    },
  });
  beforeEach(() => lines.splice(0));

  it('tells of what failed by method and path, with nothing that was asked in it, each in one line', async () => {
    const app = express();
    app.get('/api/broken', () => {
      throw new Error('one\nline {"level":60}');
    });
    app.get('/api/refused', () => {
      throw new HttpProblem(409, 'callDone');
    });
    app.use(problemHandler(pino({ level: 'info' }, kept)));
    await supertest(app).get('/api/refused?q=Amsel').expect(409);
    const answer = await supertest(app).get('/api/broken?q=Amsel').expect(500);
    expect(answer.text).not.toContain('line');
    expect(lines.length).toBe(1);
    expect(lines[0]).toEqual(jasmine.objectContaining({ level: 50, method: 'GET', path: '/api/broken' }));
    expect(JSON.stringify(lines)).not.toContain('Amsel');
  });

  it('tells of every request where that is wanted, of nothing that was asked in it', async () => {
    const database = await testDatabase();
    const hub = streamHub();
    const appWith = async (level: string) =>
      createApp({
        ...{ database, hub, log: pino({ level }, kept), instruments: await noInstruments(database) },
      });
    await supertest(await appWith('info'))
      .get('/api/board?q=Amsel')
      .expect(200);
    expect(lines).toEqual([]);
    await supertest(await appWith('debug'))
      .get('/api/board?q=Amsel')
      .expect(200);
    expect(lines.length).toBe(1);
    expect(lines[0]).toEqual(
      jasmine.objectContaining({
        level: 20,
        req: jasmine.objectContaining({ method: 'GET', path: '/api/board' }),
        res: { statusCode: 200 },
      }),
    );
    expect(JSON.stringify(lines)).not.toContain('Amsel');
    hub.closeAll();
    await database.close();
  });
});
