import { isCharged } from '@voltrek/core/sources';
import type { JobDetail, Van } from '@voltrek/contracts';
import { chargeOf, type EventData } from '@voltrek/core/job';
import { vans as vansTable } from '../src/db/schema.js';
import { openJob, PACK_PLAN, send, sharedServer } from './shared-server.js';

const LEADS = { sectionMm2: 16, lengthM: 0.6, conductor: 'copper', contact: 'clean' } as const;
const PACK = {
  kind: 'lithium-pack',
  name: 'Small pack',
  peakAmps: 400,
  peakSeconds: 2,
  charge: 1,
  capacityAh: 2,
  leads: LEADS,
} as const;

describe('vans and kit', () => {
  const vans = async (): Promise<Van[]> =>
    (await (await sharedServer()).api.get('/api/vans').expect(200)).body as Van[];
  const itemNamed = async (name: string) =>
    (await vans()).flatMap((v) => v.kit).find((k) => k.name === name)!;

  it('are added, changed and retired, each kind by its own checked fields', async () => {
    const { api } = await sharedServer();
    await api.post('/api/vans').send({ name: 'Van 3, Test', retired: false }).expect(201);
    const van = (await vans()).find((v) => v.name === 'Van 3, Test')!;
    await api
      .post(`/api/vans/${van.id}/items`)
      .send({ ...PACK, peakAmps: 9 })
      .expect(422);
    await api
      .post(`/api/vans/${van.id}/items`)
      .send({ ...PACK, volts: 12 })
      .expect(422);
    await api.post(`/api/vans/${van.id}/items`).send({ kind: 'anvil', name: 'A' }).expect(422);
    await api.post(`/api/vans/nowhere/items`).send(PACK).expect(404);
    const bank = {
      kind: 'capacitor-booster',
      name: 'Bank',
      cells: 6,
      cellFarads: 350,
      cellVolts: 2.7,
      cellOhms: 0.0003,
      volts: 20,
      converterAmps: null,
      leads: LEADS,
    };
    await api.post(`/api/vans/${van.id}/items`).send(bank).expect(422);
    await api.post(`/api/vans/${van.id}/items`).send(PACK).expect(201);
    const item = await itemNamed('Small pack');
    await api
      .put(`/api/vans/items/${item.id}`)
      .send({ ...PACK, name: 'Small pack, marked' })
      .expect(200);
    await api
      .put(`/api/vans/items/${item.id}`)
      .send({ kind: 'latch-source', name: 'X', volts: 9 })
      .expect(409);
    expect((await itemNamed('Small pack, marked')).id).toBe(item.id);
    await api.post(`/api/vans/items/${item.id}/retire`).send({ by: 'crew-1' }).expect(200);
    expect(await itemNamed('Small pack, marked')).toBeUndefined();
    await api.put(`/api/vans/${van.id}`).send({ name: 'Van 3, Test', retired: true }).expect(200);
    expect((await vans()).find((v) => v.id === van.id)!.retired).toBeTrue();
  });

  it('carry their charge: a try takes out what the core computes, an undo gives it back, a recharge fills it', async () => {
    const { api } = await sharedServer();
    await api
      .post('/api/vans/van-1/items')
      .send({ ...PACK, name: 'Counted pack' })
      .expect(201);
    const { id } = await itemNamed('Counted pack');
    const charge = async (): Promise<number> => {
      const item = await itemNamed('Counted pack');
      return isCharged(item) ? chargeOf(item) : NaN;
    };
    const jobId = await openJob();
    const plan: EventData['plan.chosen'] = {
      ...PACK_PLAN,
      ...{ optionId: `${id}@12`, sourceId: id, starterAmps: 180 },
    };
    await send(jobId, 'polarity.proved', { signs: ['mark', 'meter'] });
    expect((await send(jobId, 'plan.chosen', plan)).status).toBe(201);
    await send(jobId, 'clamp.attached', { clamp: 'redCasualty', pointId: 'battery-plus' });
    expect((await send(jobId, 'clamp.attached', { clamp: 'blackCasualty', pointId: 'ground' })).status).toBe(
      201,
    );
    await send(jobId, 'attempt.started', {});
    const ended = await send(jobId, 'attempt.ended', { outcome: 'slow', seconds: 10, lowestVolts: 9 });
    expect(ended.status).toBe(201);
    // 180 A for 10 s are half an ampere hour: a quarter of the two that it holds.
    expect(await charge()).toBeCloseTo(0.75, 6);
    // The fall of the posts tells of the pack. It stays with the pack until its entry is another piece.
    const tries = async (): Promise<number> =>
      ((await itemNamed('Counted pack')) as { uses?: readonly unknown[] }).uses?.length ?? 0;
    expect(await tries()).toBe(1);
    const {
      id: _id,
      uses: _uses,
      ...known
    } = (await itemNamed('Counted pack')) as unknown as Record<string, unknown>;
    const correct = (part: object) =>
      api
        .put(`/api/vans/items/${id}`)
        .send({ ...known, ...part })
        .expect(200);
    await correct({ peakSeconds: 3 });
    expect(await tries()).toBe(1);
    const { event } = ended.body as { event: { id: string } };
    expect((await send(jobId, 'event.undone', { eventId: event.id })).status).toBe(201);
    expect(await charge()).toBeCloseTo(1, 6);
    expect(await tries()).toBe(0);
    await send(jobId, 'attempt.ended', { outcome: 'slow', seconds: 20, lowestVolts: 9 });
    expect(await charge()).toBeCloseTo(0.5, 6);
    expect(await tries()).toBe(1);
    await correct({ peakAmps: 500 });
    expect(await tries()).toBe(0);
    await api.post(`/api/vans/items/${id}/recharge`).send({ by: 'crew-2' }).expect(200);
    expect(await charge()).toBe(1);
    // Used down to empty it stays at nothing.
    await send(jobId, 'override.given', { rule: 'crankRestSeconds', reason: 'test of the pack' });
    await send(jobId, 'attempt.started', {});
    await send(jobId, 'attempt.ended', { outcome: 'slow', seconds: 60, lowestVolts: 9 });
    expect(await charge()).toBe(0);
    await api.post('/api/vans/items/leads-heavy/recharge').send({ by: 'crew-2' }).expect(409);
  });
});

describe('the van that a call is worked from', () => {
  it('is the first by name where nobody was told, whatever ids vans that came later have', async () => {
    const { api, database } = await sharedServer();
    // The lowest id that a new van may draw.
    await database.db.insert(vansTable).values({ id: 'van-00000000', name: 'Van 9, Test' });
    const jobId = await openJob();
    const { call } = (await api.get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
    expect(call.vanId).toBe('van-1');
    const listed = (await api.get('/api/vans').expect(200)).body as Van[];
    expect(listed.map(({ name }) => name)).toEqual(listed.map(({ name }) => name).sort());
  });
});

describe('another van', () => {
  it('brings what it carries: at hand from when it is here, and then only', async () => {
    const { api } = await sharedServer();
    const added = (await api.post('/api/vans').send({ name: 'Van 4, Test', retired: false }).expect(201))
      .body as Van[];
    const van = added.find(({ name }) => name === 'Van 4, Test')!;
    const kept = (
      await api
        .post(`/api/vans/${van.id}/items`)
        .send({ ...PACK, name: 'Brought pack' })
        .expect(201)
    ).body as Van[];
    const { id } = kept.find((v) => v.id === van.id)!.kit[0]!;
    const plan = { ...PACK_PLAN, optionId: `${id}@12`, sourceId: id };
    const jobId = await openJob();
    const kitOf = async () =>
      ((await api.get(`/api/jobs/${jobId}`).expect(200)).body as { kit: { id: string }[] }).kit;
    await send(jobId, 'polarity.proved', { signs: ['mark', 'meter'] });
    expect((await send(jobId, 'van.called', { vanId: 'no-such-van', minutes: 20 })).status).toBe(404);
    expect((await send(jobId, 'van.called', { vanId: van.id, minutes: 20 })).status).toBe(201);
    const early = await send(jobId, 'plan.chosen', plan);
    expect(early.status).toBe(409);
    expect((early.body as { refusal: string }).refusal).toBe('not-in-kit');
    expect((await kitOf()).some((item) => item.id === id)).toBeFalse();
    expect((await send(jobId, 'van.arrived', { vanId: van.id })).status).toBe(201);
    expect((await kitOf()).some((item) => item.id === id)).toBeTrue();
    expect((await send(jobId, 'plan.chosen', plan)).status).toBe(201);
    await send(jobId, 'clamp.attached', { clamp: 'redCasualty', pointId: 'battery-plus' });
    await send(jobId, 'clamp.attached', { clamp: 'blackCasualty', pointId: 'ground' });
    await send(jobId, 'attempt.started', {});
    await send(jobId, 'attempt.ended', { outcome: 'slow', seconds: 10, lowestVolts: 9 });
    // The van that it came from misses the charge that it gave.
    const after = (await api.get('/api/vans').expect(200)).body as Van[];
    const pack = after.find((v) => v.id === van.id)!.kit[0]!;
    expect(isCharged(pack) && chargeOf(pack)).toBeLessThan(0.9);
  });
});

describe('crew', () => {
  it('is added, changed and retired, never deleted while a log names somebody', async () => {
    const { api } = await sharedServer();
    type Crew = { id: string; name: string; role: string; retired: boolean }[];
    const added = (
      await api.post('/api/crew').send({ name: 'Newcomer', role: 'apprentice', retired: false }).expect(201)
    ).body as Crew;
    const { id } = added.find((c) => c.name === 'Newcomer')!;
    const after = (
      await api
        .put(`/api/crew/${id}`)
        .send({ name: 'Newcomer', role: 'technician', retired: true })
        .expect(200)
    ).body as Crew;
    expect(after.find((c) => c.id === id)).toEqual({
      id,
      name: 'Newcomer',
      role: 'technician',
      retired: true,
    });
    await api.post('/api/crew').send({ name: '', role: 'technician', retired: false }).expect(422);
    await api.post('/api/crew').send({ name: 'X', role: 'king', retired: false }).expect(422);
    await api.put('/api/crew/nobody').send({ name: 'X', role: 'technician', retired: false }).expect(404);
    await api.delete(`/api/crew/${id}`).expect(405);
  });
});
