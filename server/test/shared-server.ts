import { randomUUID } from 'node:crypto';
import type { EventData, EventType, JobEvent } from '@voltrek/core/job';
import type { Call } from '@voltrek/contracts';
import { pino } from 'pino';
import sharp from 'sharp';
import supertest from 'supertest';
import { answersAtFault, answersChecked } from './answers-checked.js';
import { demoDatabase } from './test-database.js';
import { createApp } from '../src/http/app.js';
import { streamHub } from '../src/http/stream-hub.js';
import { noInstruments } from './no-instruments.js';

async function start() {
  const database = await demoDatabase();
  const hub = streamHub();
  const instruments = await noInstruments(database);
  const app = answersChecked(
    createApp({
      database,
      hub,
      log: pino({ level: 'silent' }),
      instruments,
      // A suite sends in a minute what nobody else does.
      perMinute: { requests: 1e9, heavy: 1e9, signIn: 1e9 },
    }),
  );
  return { database, app, hub, instruments, api: supertest(app) };
}

let running: ReturnType<typeof start> | undefined;

/** One server on one database for the whole suite: an instance costs seconds. Each test opens jobs of its own. */
export function sharedServer(): ReturnType<typeof start> {
  running ??= start();
  return running;
}

export function eventOf<T extends EventType>(jobId: string, type: T, data: EventData[T]): JobEvent {
  return { id: randomUUID(), jobId, at: new Date().toISOString(), by: 'crew-1', type, data } as JobEvent;
}

/** The plan most jobs here take: a lithium pack on a 12 V start. */
export const PACK_PLAN: EventData['plan.chosen'] = {
  optionId: 'pack-lithium@12',
  sourceId: 'pack-lithium',
  leadSetId: null,
  sourceKind: 'lithium-pack',
  outlook: 'cranks',
  odds: null,
  starterVolts: 10,
  starterAmps: 200,
  rpm: 200,
  neededRpm: 80,
  wakeVolts: null,
  postVolts: 10.4,
  waitMinutes: 0,
  chargeOnly: false,
  inputs: [],
};

/** A fresh call with its job opened; returns the job's id. */
export async function openJob(modelId = 'brinmoor-pella'): Promise<string> {
  const { api } = await sharedServer();
  const callId = randomUUID();
  const call = {
    id: callId,
    title: 'Test',
    placeName: 'Test yard',
    said: '',
    modelId,
    ambientC: -4,
    urgent: false,
  };
  const { number: callNumber } = (await api.post('/api/board').send(call).expect(201)).body as Call;
  const jobId = randomUUID();
  const opened = eventOf(jobId, 'job.opened', {
    callId,
    callNumber,
    title: 'Test',
    placeName: 'Test yard',
    modelId,
    ambientC: -4,
  });
  await api.post(`/api/jobs/${jobId}/events`).send(opened).expect(201);
  return jobId;
}

/** Sends one event and gives the response. */
export async function send<T extends EventType>(
  jobId: string,
  type: T,
  data: EventData[T],
): Promise<supertest.Response> {
  const { api } = await sharedServer();
  return api.post(`/api/jobs/${jobId}/events`).send(eventOf(jobId, type, data));
}

beforeAll(async () => {
  await sharedServer();
});
afterAll(async () => {
  expect([...answersAtFault])
    .withContext('answers that are not as the API is described')
    .toEqual([]);
  const { database, hub } = await sharedServer();
  hub.closeAll();
  await database.close();
});

/** A picture as a phone takes it: large, and with words on its maker in it. */
export const testPicture = (background = '#234'): Promise<Buffer> =>
  sharp({ create: { width: 3000, height: 1000, channels: 3, background } })
    .withExif({ IFD0: { Copyright: 'Somebody' } })
    .jpeg()
    .toBuffer();

/** Sends a photo of a job. */
export async function sendPhoto(jobId: string, id: string, background?: string) {
  const { api } = await sharedServer();
  return api
    .post(`/api/jobs/${jobId}/photos`)
    .field('by', 'crew-1')
    .field('id', id)
    .attach('photo', await testPicture(background), 'a.jpg');
}
