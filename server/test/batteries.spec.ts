import { randomUUID } from 'node:crypto';
import type { BatteryRecord, BoardCall, Call, JobDetail, Vehicle, VehicleRecord } from '@voltrek/contracts';
import { eventOf, openJob, send, sendPhoto, sharedServer } from './shared-server.js';

/** A job on a new call for this vehicle. */
async function visit(vehicleId: string): Promise<string> {
  const { api } = await sharedServer();
  const record = (await api.get(`/api/vehicles/${vehicleId}`).expect(200)).body as VehicleRecord;
  const call = (
    await api
      .post('/api/board')
      .send({
        id: randomUUID(),
        title: 'Test',
        placeName: 'Yard',
        said: '',
        vehicleId,
        ambientC: -4,
        urgent: false,
      })
      .expect(201)
  ).body as Call;
  const jobId = randomUUID();
  const opened = eventOf(jobId, 'job.opened', {
    callId: call.id,
    callNumber: call.number,
    title: 'Test',
    placeName: 'Yard',
    modelId: record.vehicle.modelId,
    vehicleId,
    ambientC: -4,
  });
  await api.post(`/api/jobs/${jobId}/events`).send(opened).expect(201);
  return jobId;
}
async function newVehicle(plate: string | null = null, modelId = 'skarnby-lumen-20'): Promise<Vehicle> {
  const { api } = await sharedServer();
  const entry = { plate, fleetNumber: null, serialNumber: null, modelId, owner: null, notes: '' };
  return (await api.post('/api/vehicles').send(entry).expect(201)).body as Vehicle;
}
async function recordOf(id: string): Promise<BatteryRecord> {
  const { api } = await sharedServer();
  return (await api.get(`/api/batteries/${id}`).expect(200)).body as BatteryRecord;
}
async function vehicleOf(id: string): Promise<VehicleRecord> {
  const { api } = await sharedServer();
  return (await api.get(`/api/vehicles/${id}`).expect(200)).body as VehicleRecord;
}
async function detailOf(jobId: string): Promise<JobDetail> {
  const { api } = await sharedServer();
  return (await api.get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
}
const rest = (volts: number) => ({ kind: 'rest', volts, battery: 0, tempC: -4, source: 'typed' }) as const;
const AGM = { chemistry: 'agm', capacityAh: 80, ccaAmps: 900, ccaStandard: 'EN' } as const;

describe('a vehicle', () => {
  it('has its own history and its own flat calls: another of the same model has none of them', async () => {
    const [one, other] = [await newVehicle(), await newVehicle()];
    const first = await visit(one.id);
    await send(first, 'reading.taken', rest(11.2));
    expect((await detailOf(first)).earlierFlatCalls).toBe(0);
    const second = await visit(one.id);
    expect((await detailOf(second)).earlierFlatCalls).toBe(1);
    expect((await detailOf(await visit(other.id))).earlierFlatCalls).toBe(0);
    // A later flat call says nothing of an earlier one.
    await send(second, 'reading.taken', rest(11));
    expect((await detailOf(first)).earlierFlatCalls).toBe(0);
    expect((await vehicleOf(one.id)).visits.map((v) => v.id)).toEqual([second, first]);
    expect((await vehicleOf(other.id)).visits.length).toBe(1);
    expect((await vehicleOf(one.id)).batteries[0]!.id).not.toBe((await vehicleOf(other.id)).batteries[0]!.id);
  });

  it('begins its next job from the parts at fault and the strength that the last one left', async () => {
    const { id } = await newVehicle();
    const first = await visit(id);
    expect((await detailOf(first)).earlier).toBeNull();
    await send(first, 'reading.taken', rest(12.5));
    await send(first, 'finding.recorded', {
      check: 'conductance',
      found: 0.7,
      source: 'typed',
      figures: [483],
    });
    await send(first, 'verdict.given', {
      ...{ verdict: 'not-the-battery', suspect: 'drain', certainty: 'fairly-sure', followUps: [] },
      ...{ share: 0.7, ground: 'fault-elsewhere', ledger: [], deciding: null },
      causes: [{ cause: 'drain', share: 0.7 }],
    });
    // A job that is still open leaves nothing yet but what its battery showed.
    expect((await detailOf(await visit(id))).earlier!.causes).toEqual([]);
    await send(first, 'job.closed', { note: '' });
    const next = await detailOf(await visit(id));
    expect(next.earlier!.causes).toEqual([{ cause: 'drain', share: 0.7 }]);
    expect(next.earlier!.days).toBeLessThan(0.1);
    const [strength] = next.earlier!.strengths;
    expect(strength!.share).toBeCloseTo(0.72, 1);
    expect(strength!.spread).toBeGreaterThan(0);
    // The first job learns nothing from the later ones.
    expect((await detailOf(first)).earlier).toBeNull();
  });

  it('is found by its plate in spite of blanks, letter case and a slip of the finger', async () => {
    const { api } = await sharedServer();
    const known = await newVehicle('QW 81-53 7', 'brinmoor-pella');
    for (const typed of ['QW81537', 'qw 815 37', ' Qw-81.537', 'QW81573', 'QW8153', 'OW81537']) {
      const found = (await api.get('/api/vehicles').query({ q: typed }).expect(200)).body as Vehicle[];
      expect(found.map((v) => v.id))
        .withContext(typed)
        .toContain(known.id);
    }
    expect((await api.get('/api/vehicles').query({ q: 'ZZZZZZZ' })).body).toEqual([]);
    await api
      .post('/api/vehicles')
      .send({
        plate: 'qw 81537',
        fleetNumber: null,
        serialNumber: null,
        modelId: 'brinmoor-pella',
        owner: null,
        notes: '',
      })
      .expect(409);
  });

  it('is made by a call with a plate that nobody knows, and known by it from then on', async () => {
    const { api } = await sharedServer();
    const call = (more: object) => ({
      id: randomUUID(),
      title: 'T',
      placeName: 'P',
      said: '',
      ambientC: 0,
      urgent: false,
      ...more,
    });
    await api
      .post('/api/board')
      .send(call({ plate: 'QX 9 001' }))
      .expect(422);
    await api.post('/api/board').send(call({})).expect(422);
    const first = await api
      .post('/api/board')
      .send(call({ plate: 'QX 9 001', modelId: 'brinmoor-pella' }))
      .expect(201);
    const again = await api
      .post('/api/board')
      .send(call({ plate: 'qx9001', placeName: '' }))
      .expect(201);
    expect((again.body as Call).vehicleId).toBe((first.body as Call).vehicleId);
    expect((again.body as Call).modelId).toBe('brinmoor-pella');
  });

  it('is changed on the revision that was seen, and matched to its model later', async () => {
    const { api } = await sharedServer();
    const vehicle = await newVehicle(null, 'brinmoor-pella');
    const entry = {
      plate: 'QX 77 12',
      fleetNumber: '9',
      serialNumber: null,
      modelId: 'brinmoor-pella',
      notes: 'tow eye lost',
    };
    const owner = { name: 'Somebody', phone: '0555 0100' };
    await api
      .put(`/api/vehicles/${vehicle.id}`)
      .send({ vehicle: { ...entry, owner }, basedOn: 1, by: 'crew-1' })
      .expect(200);
    await api
      .put(`/api/vehicles/${vehicle.id}`)
      .send({ vehicle: { ...entry, owner }, basedOn: 1, by: 'crew-1' })
      .expect(409);
    const jobId = await visit(vehicle.id);
    expect((await send(jobId, 'model.identified', { modelId: 'ardwen-solace' })).status).toBe(201);
    const now = await vehicleOf(vehicle.id);
    expect(now.vehicle.modelId).toBe('ardwen-solace');
    expect(now.owner!.name).toBe('Somebody');
  });
});

describe('personal data', () => {
  it('is told whole to whom it belongs, and after erasure job and battery record stand, nameless', async () => {
    const { api } = await sharedServer();
    const entry = {
      fleetNumber: null,
      serialNumber: null,
      modelId: 'brinmoor-pella',
      notes: 'key under the mat',
    };
    const owner = { name: 'Erase Me', phone: '0555 0177' };
    const vehicle = (
      await api
        .post('/api/vehicles')
        .send({ ...entry, plate: 'QE 55 66', owner })
        .expect(201)
    ).body as Vehicle;
    const jobId = await visit(vehicle.id);
    await send(jobId, 'reading.taken', rest(12.4));
    const photos = [randomUUID(), randomUUID()];
    for (const [i, photoId] of photos.entries()) {
      expect((await sendPhoto(jobId, photoId)).status).toBe(201);
      await send(jobId, 'photo.added', { photoId, caption: '', showsPerson: i === 0 });
    }
    const told = (await api.get(`/api/people/${vehicle.ownerId}/export`).expect(200)).body as object;
    expect(JSON.stringify(told)).toContain('Erase Me');
    expect(JSON.stringify(told)).toContain('QE 55 66');
    await api.post(`/api/people/${vehicle.ownerId}/erase`).send({ by: 'crew-1' }).expect(200);
    const after = await vehicleOf(vehicle.id);
    expect(after.owner).toEqual(jasmine.objectContaining({ name: null, phone: null }));
    expect(after.vehicle.plate).toBeNull();
    expect(after.visits.map((v) => v.id)).toContain(jobId);
    expect((await recordOf(after.batteries[0]!.id)).entries.at(-1)!.volts).toBe(12.4);
    for (const path of [
      `/api/jobs/${jobId}`,
      `/api/jobs/${jobId}/sheet`,
      '/api/board',
      '/api/vehicles?q=QE5566',
    ])
      expect(JSON.stringify((await api.get(path)).body))
        .withContext(path)
        .not.toMatch(/Erase Me|0555 0177|QE 55 66|QE5566/);
    await api.get(`/api/people/${randomUUID()}/export`).expect(404);
    await api.post(`/api/people/${vehicle.ownerId}/erase`).send({ by: 'nobody' }).expect(404);
    // A photo that shows a person goes with the person; any other stays.
    await api.get(`/api/jobs/${jobId}/photos/${photos[0]}`).expect(404);
    await api.get(`/api/jobs/${jobId}/photos/${photos[1]}`).expect(200);
  });
});

describe('a battery', () => {
  it('is one of its own from the first visit, learns over visits, and its record follows it out and into another vehicle', async () => {
    const { api } = await sharedServer();
    const vehicle = await newVehicle();
    const jobId = await visit(vehicle.id);
    const [old] = (await vehicleOf(vehicle.id)).batteries;
    await send(jobId, 'reading.taken', rest(12.4));
    const tested = { check: 'conductance', found: 0.55, source: 'meter', figures: [300] } as const;
    await send(jobId, 'finding.recorded', tested);
    expect((await recordOf(old!.id)).entries.map((e) => e.share ?? e.volts)).toEqual([12.4, 0.55]);
    await send(jobId, 'fitting.confirmed', { battery: 0, step: 'all-off' });
    const replaced = eventOf(jobId, 'battery.replaced', { battery: 0, rating: AGM, dateMark: '11/26' });
    await api.post(`/api/jobs/${jobId}/events`).send(replaced).expect(201);
    const [fitted] = (await vehicleOf(vehicle.id)).batteries;
    expect(fitted!.id).not.toBe(old!.id);
    expect(fitted).toEqual(
      jasmine.objectContaining({ rating: AGM, dateMark: '11/26', state: 'fitted', place: 0 }),
    );
    expect((await recordOf(old!.id)).battery.state).toBe('depot');
    expect((await recordOf(old!.id)).moves.map((m) => m.kind)).toEqual(['met', 'taken-out']);
    // Undone, the old one sits there again and the new one was never there.
    await send(jobId, 'event.undone', { eventId: replaced.id });
    expect((await vehicleOf(vehicle.id)).batteries.map((b) => b.id)).toEqual([old!.id]);
    await api.get(`/api/batteries/${fitted!.id}`).expect(404);
    await send(jobId, 'battery.replaced', { battery: 0, rating: AGM });

    await api
      .post(`/api/batteries/${old!.id}/moves`)
      .send({ kind: 'charged', by: 'crew-2', vehicleId: null, place: null, vanId: null, note: '24 h at 8 A' })
      .expect(201);
    const next = await newVehicle();
    const into = { kind: 'fitted', by: 'crew-2', vehicleId: next.id, place: 0, vanId: null, note: '' };
    await api.post(`/api/batteries/${old!.id}/moves`).send(into).expect(201);
    await api
      .post(`/api/batteries/${old!.id}/moves`)
      .send({ ...into, place: 2 })
      .expect(409);
    const later = await visit(next.id);
    await send(later, 'reading.taken', rest(12.7));
    const whole = await recordOf(old!.id);
    expect(whole.battery.vehicleId).toBe(next.id);
    expect(whole.moves.map((m) => m.kind)).toEqual(['met', 'taken-out', 'charged', 'fitted']);
    expect(whole.entries.filter((e) => e.kind === 'rest').map((e) => e.volts)).toEqual([12.4, 12.7]);
    expect((await vehicleOf(next.id)).batteries.map((b) => b.id)).toEqual([old!.id]);
    // By the code of its label, however it is typed.
    const { code } = whole.battery;
    expect((await recordOf(`${code.slice(0, 3)}-${code.slice(3)}`.toLowerCase())).battery.id).toBe(old!.id);
  });

  it('that is found in the place of another has its record from this visit on, and undone the other sits there again', async () => {
    const { api } = await sharedServer();
    const vehicle = await newVehicle();
    const jobId = await visit(vehicle.id);
    const [old] = (await vehicleOf(vehicle.id)).batteries;
    await send(jobId, 'reading.taken', rest(12.3));
    const found = eventOf(jobId, 'battery.found', { battery: 0, rating: AGM, dateMark: '09/26' });
    await api.post(`/api/jobs/${jobId}/events`).send(found).expect(201);
    const [met] = (await vehicleOf(vehicle.id)).batteries;
    expect(met).toEqual(jasmine.objectContaining({ rating: AGM, dateMark: '09/26', state: 'fitted' }));
    // It sat there when the reading was taken.
    expect((await recordOf(met!.id)).entries.map(({ volts }) => volts)).toEqual([12.3]);
    const gone = await recordOf(old!.id);
    expect([gone.battery.state, gone.entries.length]).toEqual(['gone', 0]);
    expect(gone.moves.map(({ kind }) => kind)).toEqual(['met', 'gone']);
    expect(((await api.get('/api/batteries')).body as { id: string }[]).map(({ id }) => id)).not.toContain(
      old!.id,
    );
    expect((await send(jobId, 'event.undone', { eventId: found.id })).status).toBe(201);
    expect((await vehicleOf(vehicle.id)).batteries.map(({ id }) => id)).toEqual([old!.id]);
    expect((await recordOf(old!.id)).entries.map(({ volts }) => volts)).toEqual([12.3]);
  });

  it('of a van is a spare until a job fits it', async () => {
    const { api } = await sharedServer();
    const made = await api
      .post('/api/batteries')
      .send({ rating: AGM, dateMark: '10/26', vanId: 'van-2', by: 'crew-1' })
      .expect(201);
    const { battery } = made.body as BatteryRecord;
    expect(battery.state).toBe('on-van');
    const vehicle = await newVehicle();
    const jobId = await visit(vehicle.id);
    const event = { battery: 0, rating: AGM, batteryId: battery.id } as const;
    expect((await send(jobId, 'battery.replaced', event)).status).toBe(201);
    expect((await vehicleOf(vehicle.id)).batteries.map((b) => b.id)).toEqual([battery.id]);
    await api
      .post(`/api/batteries/${battery.id}/moves`)
      .send({ kind: 'scrapped', by: 'crew-1', vehicleId: null, place: null, vanId: null, note: '' })
      .expect(201);
    await api
      .post(`/api/batteries/${battery.id}/moves`)
      .send({ kind: 'to-van', by: 'crew-1', vehicleId: null, place: null, vanId: 'van-1', note: '' })
      .expect(409);
  });

  it('is told what its machine needs in the cold, and nobody knows one that is not there', async () => {
    const vehicle = await newVehicle(null, 'brinmoor-pella');
    await visit(vehicle.id);
    const { needShare, coldC } = await recordOf((await vehicleOf(vehicle.id)).batteries[0]!.id);
    expect(coldC).toBeLessThanOrEqual(-10);
    expect(needShare).toBeGreaterThan(0.3);
    expect(needShare).toBeLessThan(1);
    const { api } = await sharedServer();
    await api.get('/api/batteries/nobody-knows').expect(404);
    await api.get(`/api/batteries/${randomUUID()}`).expect(404);
  });
});

describe('a call', () => {
  it('is taken, passed on and called off with reasons, and its job is worked with the kit of its van', async () => {
    const { api } = await sharedServer();
    const vehicle = await newVehicle(null, 'brinmoor-pella');
    const call = (
      await api
        .post('/api/board')
        .send({
          id: randomUUID(),
          title: 'T',
          placeName: 'P',
          said: '',
          vehicleId: vehicle.id,
          ambientC: 0,
          urgent: true,
          caller: { name: 'Caller', phone: '0555 0133' },
          promisedAt: '2026-12-01T03:00:00.000Z',
        })
        .expect(201)
    ).body as Call;
    const change = (more: object) => ({ by: 'crew-2', vanId: null, technicianId: null, reason: '', ...more });
    const path = `/api/board/${call.id}/changes`;
    const onBoard = async () =>
      ((await api.get('/api/board')).body as BoardCall[]).find((c) => c.id === call.id)!;
    expect((await onBoard()).caller!.name).toBe('Caller');
    await api
      .post(path)
      .send(change({ kind: 'passed-on', vanId: 'van-2' }))
      .expect(422);
    await api
      .post(path)
      .send(change({ kind: 'taken' }))
      .expect(422);
    await api
      .post(path)
      .send(change({ kind: 'taken', vanId: 'van-2', technicianId: 'crew-3' }))
      .expect(201);
    expect(await onBoard()).toEqual(
      jasmine.objectContaining({ state: 'taken', vanId: 'van-2', technicianId: 'crew-3' }),
    );
    await api
      .post(path)
      .send(change({ kind: 'given-back', reason: 'engine fault on the van' }))
      .expect(201);
    await api
      .post(path)
      .send(change({ kind: 'called-off', reason: 'it started' }))
      .expect(201);
    expect((await onBoard()).state).toBe('called-off');
    await api
      .post(path)
      .send(change({ kind: 'taken', vanId: 'van-1' }))
      .expect(409);
    await api
      .post(path)
      .send(change({ kind: 'reopened' }))
      .expect(201);
    await api
      .post(path)
      .send(change({ kind: 'taken', vanId: 'van-2', technicianId: 'crew-3' }))
      .expect(201);
    const jobId = randomUUID();
    await api
      .post(`/api/jobs/${jobId}/events`)
      .send(
        eventOf(jobId, 'job.opened', {
          callId: call.id,
          callNumber: call.number,
          title: 'T',
          placeName: 'P',
          modelId: vehicle.modelId,
          ambientC: 0,
        }),
      )
      .expect(201);
    const { kit } = await detailOf(jobId);
    expect(kit.map((k) => k.id)).toContain('pack-lithium-2');
    expect(kit.map((k) => k.id)).not.toContain('pack-lithium');
    await api
      .post(path)
      .send(change({ kind: 'called-off', reason: 'too late' }))
      .expect(409);
    const changes = (await api.get(path).expect(200)).body as { kind: string }[];
    expect(changes.map((c) => c.kind)).toEqual([
      'taken',
      'given-back',
      'called-off',
      'reopened',
      'taken',
      'taken',
    ]);
  });
});

describe('job sheet', () => {
  it('holds readings with what stands against them, evidence and cautions', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob('brinmoor-pella');
    const volts = { kind: 'charging-idle', volts: 14.4, battery: 0, tempC: -4, source: 'typed' } as const;
    await send(jobId, 'reading.taken', volts);
    await send(jobId, 'symptom.recorded', { symptom: 'slow-crank' });
    const sheet = (await api.get(`/api/jobs/${jobId}/sheet`).expect(200)).body as {
      form: string;
      readings: { doubt: string }[];
      evidence: { check: string }[];
      never: string[];
    };
    expect(sheet.form).toBe('voltrek-job-sheet/1');
    expect(sheet.readings[0]!.doubt).toBe('charging-but-still');
    expect(sheet.evidence.map((e) => e.check)).toContain('symptom');
    expect(sheet.evidence.map((e) => e.check)).not.toContain('charging');
    expect(sheet.never.length).toBeGreaterThan(0);
  });
});
