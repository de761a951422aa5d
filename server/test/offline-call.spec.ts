import { randomUUID } from 'node:crypto';
import type { AtlasEntry, Call, DevicePack, JobDetail, NewCall } from '@voltrek/contracts';
import { JOBS_WANTED_MOST } from '@voltrek/contracts/wire';
import { isTemplate } from '@voltrek/core/template';
import sharp from 'sharp';
import { eventOf, openJob, send, sharedServer } from './shared-server.js';

const newCall = (more: Partial<NewCall>): NewCall => ({
  id: randomUUID(),
  title: 'Small car',
  placeName: 'Quarry road',
  said: 'nothing happens',
  ambientC: -6,
  urgent: false,
  modelId: 'brinmoor-pella',
  ...more,
});

describe('a call that was opened with no network', () => {
  it('is put on the board under the ids of the device, and its job is told its number and vehicle', async () => {
    const { api } = await sharedServer();
    const vehicleId = randomUUID();
    const call = newCall({ plate: 'OF 1001', newVehicleId: vehicleId });
    const kept = (await api.post('/api/board').send(call).expect(201)).body as Call;
    expect(kept).toEqual(jasmine.objectContaining({ id: call.id, vehicleId }));
    const jobId = randomUUID();
    const opened = eventOf(jobId, 'job.opened', {
      callId: call.id,
      callNumber: 0,
      title: call.title,
      placeName: call.placeName,
      modelId: 'brinmoor-pella',
      ambientC: -6,
    });
    const answer = await api.post(`/api/jobs/${jobId}/events`).send(opened).expect(201);
    const { event } = answer.body as { event: typeof opened };
    expect(event.data).toEqual(jasmine.objectContaining({ callNumber: kept.number, vehicleId }));
    const detail = (await api.get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
    expect(detail.vehicle).toEqual(jasmine.objectContaining({ id: vehicleId, plate: 'OF 1001' }));
    expect(detail.events).toEqual([event]);
  });

  it('is the vehicle that somebody else made of that plate meanwhile', async () => {
    const { api } = await sharedServer();
    const first = (
      await api
        .post('/api/board')
        .send(newCall({ plate: 'OF 1002' }))
        .expect(201)
    ).body as Call;
    const late = newCall({ plate: 'of-1002', newVehicleId: randomUUID() });
    const second = (await api.post('/api/board').send(late).expect(201)).body as Call;
    expect(second.vehicleId).toBe(first.vehicleId);
    expect(second.number).toBe(first.number + 1);
  });

  it('makes no vehicle under an id that is another’s, nor under no id at all', async () => {
    const { api } = await sharedServer();
    const first = (
      await api
        .post('/api/board')
        .send(newCall({ plate: 'OF 1003' }))
        .expect(201)
    ).body as Call;
    const again = newCall({ plate: 'OF 1004', newVehicleId: first.vehicleId });
    await api.post('/api/board').send(again).expect(409);
    await api
      .post('/api/board')
      .send({ ...again, newVehicleId: '../x' })
      .expect(422);
  });
});

describe('what a device keeps of the house', () => {
  it('has the atlas with its classes, and each vehicle with its batteries and flat calls', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    await send(jobId, 'reading.taken', {
      kind: 'rest',
      volts: 11.2,
      battery: 0,
      tempC: -4,
      source: 'meter',
    });
    const detail = (await api.get(`/api/jobs/${jobId}`)).body as JobDetail;
    const pack = (await api.get('/api/device').expect(200)).body as DevicePack;
    const classes = pack.models.filter(({ machine }) => isTemplate(machine));
    expect(classes.length).toBeGreaterThan(5);
    expect(pack.models.find(({ machine }) => machine.id === detail.machine.id)).toEqual({
      machine: detail.machine,
      confidence: detail.confidence,
    });
    const packed = pack.vehicles.find(({ vehicle }) => vehicle.id === detail.vehicle.id)!;
    expect(packed.vehicle).toEqual(jasmine.objectContaining({ ...detail.vehicle }));
    expect(packed.batteries).toEqual(detail.batteries);
    expect(packed.flatCalls).toEqual([detail.events[0]!.heardAt!]);
  });
});

describe('jobs that a device wants to hold', () => {
  it('come together as each comes by itself, without those that there are not', async () => {
    const { api } = await sharedServer();
    const ids = [await openJob(), await openJob()];
    const several = (
      await api
        .post('/api/device/jobs')
        .send({ ids: [...ids, randomUUID()] })
        .expect(200)
    ).body as JobDetail[];
    const each = await Promise.all(
      ids.map(async (id) => (await api.get(`/api/jobs/${id}`)).body as JobDetail),
    );
    expect(several).toEqual(each);
  });

  it('are asked for by their ids, some at a time', async () => {
    const { api } = await sharedServer();
    const asked = (body: object) => api.post('/api/device/jobs').send(body);
    const many = (count: number) => ({ ids: Array.from({ length: count }, () => randomUUID()) });
    await asked(many(JOBS_WANTED_MOST)).expect(200, []);
    await asked(many(JOBS_WANTED_MOST + 1)).expect(422);
    await asked({ ids: [] }).expect(422);
    await asked({ ids: ['../x'] }).expect(422);
    await asked({}).expect(422);
  });
});

describe('a photo that waited on a device', () => {
  it('is kept once, however often it is sent', async () => {
    const { api } = await sharedServer();
    const jpeg = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer();
    const id = randomUUID();
    const post = () =>
      api
        .post('/api/models/brinmoor-pella/photos')
        .field('by', 'crew-1')
        .field('id', id)
        .attach('photo', jpeg, 'x.jpg');
    const first = (await post().expect(201)).body as AtlasEntry;
    const again = (await post().expect(201)).body as AtlasEntry;
    expect(again.photos.filter((photo) => photo.id === id).length).toBe(1);
    expect(again.revision).toBe(first.revision);
  });
});
