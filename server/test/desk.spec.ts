import { randomUUID } from 'node:crypto';
import type { BoardCall, CallOutset, JobDetail } from '@voltrek/contracts';
import { sharedServer } from './shared-server.js';

const JOB = 'job.opened';

describe('the desk', () => {
  const boardOf = async (): Promise<BoardCall[]> =>
    (await (await sharedServer()).api.get('/api/board').expect(200)).body as BoardCall[];
  const waiting = async (): Promise<BoardCall> =>
    (await boardOf()).find(({ state, job }) => state === 'waiting' && job === null)!;
  const given = (technicianId: string, more: object = {}) => ({
    ...{ kind: 'taken', by: 'crew-1', vanId: 'van-2', technicianId, reason: '' },
    ...more,
  });

  it('gives a call with the time of arrival that it promises, and opens no job by that', async () => {
    const { api } = await sharedServer();
    const { id } = await waiting();
    const promisedAt = '2027-01-15T03:10:00.000Z';
    const path = `/api/board/${id}/changes`;
    await api.post(path).send(given('crew-2', { promisedAt })).expect(201);
    const after = (await boardOf()).find((c) => c.id === id)!;
    expect([after.state, after.vanId, after.technicianId, after.promisedAt, after.job]).toEqual([
      ...['taken', 'van-2', 'crew-2', promisedAt, null],
    ]);
    // A change that promises nothing leaves the promise.
    await api
      .post(path)
      .send({ ...given('crew-1'), kind: 'passed-on', reason: 'nearer' })
      .expect(201);
    expect((await boardOf()).find((c) => c.id === id)!.promisedAt).toBe(promisedAt);
    await api
      .post(path)
      .send(given('crew-2', { promisedAt: 'soon' }))
      .expect(422);
  });

  it('gives no call to somebody who must be answered for, or who works on no job', async () => {
    const { api } = await sharedServer();
    const { id } = await waiting();
    const crew = (await api.get('/api/crew').expect(200)).body as { id: string; role: string }[];
    const apprentice = crew.find(({ role }) => role === 'apprentice')!;
    const { body } = await api.post(`/api/board/${id}/changes`).send(given(apprentice.id)).expect(409);
    expect(body).toEqual(jasmine.objectContaining({ code: 'worksNotAlone' }));
    expect((await boardOf()).find((c) => c.id === id)!.state).toBe('waiting');
  });

  it('sees the job of a call as it would begin: the same that the job then has', async () => {
    const { api } = await sharedServer();
    const call = await waiting();
    const outset = (await api.get(`/api/board/${call.id}/outset`).expect(200)).body as CallOutset;
    const jobId = randomUUID();
    const { id: callId, number: callNumber, title, placeName, modelId, vehicleId, ambientC } = call;
    const data = { callId, callNumber, title, placeName, modelId, vehicleId, ambientC };
    await api
      .post(`/api/jobs/${jobId}/events`)
      .send({ id: randomUUID(), jobId, at: new Date().toISOString(), by: 'crew-1', type: JOB, data })
      .expect(201);
    const job = (await api.get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
    expect(outset.machine).toEqual(job.machine);
    expect(outset.rules).toEqual(job.rules);
    expect(outset.earlierFlatCalls).toBe(job.earlierFlatCalls);
    expect(outset.earlier?.causes).toEqual(job.earlier?.causes);
    const opened = job.events[0]!;
    expect(opened.type === JOB && (opened.data.fitted ?? null)).toEqual(outset.fitted);
    await api.get('/api/board/none/outset').expect(404);
  });
});
