import { randomUUID } from 'node:crypto';
import type { BoardCall, DueFollowUp, ShiftEnd, ShiftLeft, Van } from '@voltrek/contracts';
import { openJob, sharedServer } from './shared-server.js';

const WEEK_MS = 7 * 86_400_000;

describe('the end of a shift', () => {
  it('lists what its own pages list: open calls, kit to care for, rechecks of the week', async () => {
    const { api } = await sharedServer();
    await openJob();
    const left = (await api.get('/api/shifts/left').expect(200)).body as ShiftLeft;
    const board = (await api.get('/api/board').expect(200)).body as BoardCall[];
    const open = board.filter(({ state }) => state === 'waiting' || state === 'taken');
    expect(left.calls.map(({ number }) => number)).toEqual(open.map(({ number }) => number));
    expect(left.calls.some(({ jobId }) => jobId !== null)).toBeTrue();
    const vans = (await api.get('/api/vans').expect(200)).body as Van[];
    const marks = new Set(vans.flatMap((van) => van.marks.map((m) => `${m.kitItemId} ${m.need}`)));
    expect(new Set(left.kit.map((k) => `${k.kitItemId} ${k.need}`))).toEqual(marks);
    const due = (await api.get('/api/follow-ups').expect(200)).body as DueFollowUp[];
    const until = new Date(Date.now() + WEEK_MS).toISOString().slice(0, 10);
    expect(left.rechecks).toEqual(due.filter((f) => f.kind === 'recheck' && f.dueOn <= until));
  });

  it('is given over by one person and taken over by another, once, with what stood then', async () => {
    const { api } = await sharedServer();
    const left = (await api.get('/api/shifts/left').expect(200)).body as ShiftLeft;
    const id = randomUUID();
    const given = { id, by: 'crew-1', note: 'Van 2 pulls to the left.' };
    const first = (await api.post('/api/shifts').send(given).expect(201)).body as ShiftEnd;
    expect(first.left).toEqual(left);
    expect([first.givenBy, first.note, first.takenBy]).toEqual(['crew-1', 'Van 2 pulls to the left.', null]);
    // Sent again, and after the house went on: it stays as it was.
    await openJob();
    expect((await api.post('/api/shifts').send(given).expect(200)).body).toEqual(first);
    const sign = (by: string) => api.post(`/api/shifts/${id}/signature`).send({ by });
    expect((await sign('crew-1').expect(409)).body).toEqual(jasmine.objectContaining({ code: 'ownShift' }));
    const taken = (await sign('crew-2').expect(200)).body as ShiftEnd;
    expect(taken.takenBy).toBe('crew-2');
    expect((await sign('crew-3').expect(200)).body).toEqual(taken);
    const [newest] = (await api.get('/api/shifts').expect(200)).body as ShiftEnd[];
    expect(newest).toEqual(taken);
  });

  it('refuses a shift of nobody, and a signature under none', async () => {
    const { api } = await sharedServer();
    await api.post('/api/shifts').send({ id: randomUUID(), by: 'nobody', note: '' }).expect(404);
    await api.post('/api/shifts').send({ id: 'x', by: 'crew-1', note: '' }).expect(422);
    await api.post(`/api/shifts/${randomUUID()}/signature`).send({ by: 'crew-2' }).expect(404);
  });
});
