import { text as textFrom } from 'node:stream/consumers';
import { randomUUID } from 'node:crypto';
import type { AtlasEntry, ImportReport, JobDetail, MachineSearch, RowFault } from '@voltrek/contracts';
import type { Machine } from '@voltrek/core/machine';
import { machineFrom, TEMPLATE_CODES, templateId, templateOf, typicalOf } from '@voltrek/core/template';
import sharp from 'sharp';
import { toCsv } from '../src/atlas/csv-write.js';
import { readMachines } from '../src/atlas/file.js';
import { windowOn } from './windows.js';
import { ATLAS_FORM } from '../src/atlas/json.js';
import { searchMachines, writeMachines } from '../src/atlas/repository.js';
import { stagedModels } from '../src/db/schema.js';
import { writeDocument } from '../src/files/document.js';
import { shippedAtlas } from '../src/demo/data.js';
import { openJob, PACK_PLAN, send, sharedServer } from './shared-server.js';

const SHIPPED = shippedAtlas();
const asJson = (machines: readonly Machine[]): Promise<string> =>
  textFrom(writeDocument(ATLAS_FORM, machines));
const asCsv = (machines: readonly Machine[]): Promise<string> => textFrom(toCsv(machines));
/** An entry like a technician makes of an unknown machine. */
function found(id: string, model = 'Odd one'): Machine {
  const finding = { id, maker: 'Testmake', model, machineClass: 'car', ...typicalOf('car') } as const;
  return machineFrom({ ...finding, placeId: 'boot', layout: 'positive-left', redPost: true }, TEMPLATE_CODES);
}

async function add(machine: Machine, by = 'crew-2'): Promise<AtlasEntry> {
  const { api } = await sharedServer();
  const response = await api.post('/api/models').send({ machine, by, note: '', basedOn: null }).expect(201);
  const added = response.body as AtlasEntry;
  // Sent again, because its answer was lost, it changes nothing.
  const again = await api.post('/api/models').send({ machine, by, note: '', basedOn: null }).expect(201);
  expect(again.body).toEqual(added);
  return added;
}

describe('atlas search', () => {
  const search = async (q: string): Promise<MachineSearch> => {
    const { api } = await sharedServer();
    return (await api.get('/api/models').query({ q }).expect(200)).body as MachineSearch;
  };

  it('finds by maker, model, class and place of the battery, in spite of typing errors', async () => {
    expect((await search('')).total).toBeGreaterThanOrEqual(30);
    expect((await search('brinmor pela')).machines[0]!.id).toContain('brinmoor-pella');
    expect((await search('mistorw')).machines[0]?.id).toBe('orrendal-mistrow');
    expect((await search('under saddle')).machines[0]!.id).toBe('ostrel-fell-450');
    const ids = (await search('ev latch')).machines;
    expect(ids.length).toBeLessThan(5);
    expect((await search('digger')).machines.map((m) => m.id)).toContain('skarnby-burrock-17');
    const trucks = (await search('24 v truck')).machines.map((m) => m.id);
    expect(trucks.slice(0, 2)).toEqual(['orrendal-boreal-12', 'orrendal-cairnet-18']);
    expect((await search('v.* ( [')).machines).toEqual([]);
    expect((await search('zzqx')).machines).toEqual([]);
    expect((await search("%_'\\")).machines).toEqual([]);
  });

  it('shows an entry that stands for a class only when it is asked for', async () => {
    expect((await search('')).machines.some((m) => m.id === templateId('car'))).toBeFalse();
    expect((await search('unknown boat')).machines[0]!.id).toBe(templateId('boat'));
  });

  it('finds the right one among 5,000 @long', async () => {
    const { database } = await sharedServer();
    // Rolled back, so that other tests keep their small atlas.
    await expectAsync(
      database.db.transaction(async (tx) => {
        const at = new Date();
        const change = { kind: 'imported', by: 'crew-1', at, note: '' } as const;
        const many = Array.from({ length: 5000 }, (_, i) => ({
          machine: found(`many-${i}`, `Series ${i} variant`),
          revision: 1,
        }));
        await writeMachines(tx, many, 'maker', change);
        const db = tx as unknown as typeof database.db;
        const hit = await searchMachines(db, 'testmake sereis 4711', 60);
        expect(hit.machines[0]!.model).toBe('Series 4711 variant');
        expect((await searchMachines(db, 'glimet', 60)).machines[0]!.id).toBe('hulvane-glimmet');
        throw new Error('roll back');
      }),
    ).toBeRejectedWithError('roll back');
  });
});

describe('atlas entries', () => {
  it('are added by one, confirmed by another, corrected on the newest revision, and every change is kept', async () => {
    const { api } = await sharedServer();
    const machine = found('testmake-odd-one');
    const first = await add(machine);
    expect(first.confidence).toBe('found-once');
    expect(first.history.map((c) => [c.kind, c.by])).toEqual([['added', 'crew-2']]);

    await api.post(`/api/models/${machine.id}/confirmations`).send({ by: 'crew-2' }).expect(409);
    const confirmed = (
      await api.post(`/api/models/${machine.id}/confirmations`).send({ by: 'crew-3' }).expect(201)
    ).body as AtlasEntry;
    expect(confirmed.confidence).toBe('confirmed');

    const corrected = { ...machine, cautions: ['Fan starts by itself.'] };
    const change = { machine: corrected, by: 'crew-3', note: 'seen today', basedOn: 1 };
    await api.put(`/api/models/${machine.id}`).send(change).expect(409);
    const after = (
      await api
        .put(`/api/models/${machine.id}`)
        .send({ ...change, basedOn: 2 })
        .expect(200)
    ).body as AtlasEntry;
    expect(after.machine.cautions).toEqual(['Fan starts by itself.']);
    expect(after.confidence).toBe('found-once');
    expect(after.history.map((c) => c.kind)).toEqual(['corrected', 'confirmed', 'added']);
    await api.post('/api/models').send({ machine, by: 'crew-2', note: '', basedOn: null }).expect(409);
  });

  it('corrected in what hands rely on, make open jobs prove their points anew, and wait while clamps are on', async () => {
    const { api } = await sharedServer();
    const { machine } = await add(found('testmake-under-hands'));
    const jobId = await openJob(machine.id);
    const change = (part: Partial<Machine>, basedOn: number) =>
      api
        .put(`/api/models/${machine.id}`)
        .send({ machine: { ...machine, ...part }, by: 'crew-3', note: '', basedOn });
    const kinds = async (): Promise<string[]> =>
      ((await api.get(`/api/jobs/${jobId}`)).body as JobDetail).events.map(({ type }) => type);
    const signs = { signs: ['mark', 'meter'] } as const;
    const before = { ...machine, cautions: ['Fan starts by itself.'] };
    await send(jobId, 'polarity.proved', signs);
    await change(before, 1).expect(200);
    expect(await kinds()).toEqual(['job.opened', 'polarity.proved']);

    const [moved, ...others] = machine.points;
    const points = [{ ...moved!, xMm: moved!.xMm + 40 }, ...others];
    await change({ points }, 2).expect(200);
    expect(await kinds()).toEqual(['job.opened', 'polarity.proved', 'model.identified']);

    // Under hands it stays as it is, by one correction or by a file.
    await send(jobId, 'polarity.proved', signs);
    await send(jobId, 'plan.chosen', PACK_PLAN);
    const red = machine.points.find(({ kind }) => kind === 'red-post' || kind === 'battery-positive')!;
    const on = await send(jobId, 'clamp.attached', { clamp: 'redCasualty', pointId: red.id });
    expect(on.status).withContext(on.text).toBe(201);
    const refused = await change({ points: others }, 3);
    expect(refused.status).toBe(409);
    expect(refused.text).toContain('Clear them down first');
    const file = Buffer.from(await asCsv([{ ...machine, points: others }]));
    const preview = await api.post('/api/models/preview').attach('file', file, 'a.csv').expect(200);
    await api
      .post('/api/models/import')
      .field('by', 'crew-1')
      .field('basis', String((preview.body as ImportReport).basis))
      .attach('file', file, 'a.csv')
      .expect(409);
    expect(((await api.get(`/api/models/${machine.id}`)).body as AtlasEntry).revision).toBe(3);
  });

  it('are refused with the place of each fault, and nothing changes', async () => {
    const { api } = await sharedServer();
    const good = found('testmake-refused');
    const bad = {
      ...good,
      outline: [...good.outline].sort((a, b) => a.xMm - b.xMm),
      points: [{ ...good.points[0]!, xMm: 20_000 }, ...good.points.slice(1)],
    };
    const response = await api
      .post('/api/models')
      .send({ machine: bad, by: 'crew-2', note: '', basedOn: null })
      .expect(422);
    const paths = (response.body as { fields: { path: string }[] }).fields.map((f) => f.path);
    expect(paths).toContain('outline');
    expect(paths).toContain('points[0]');
    await api.get(`/api/models/${good.id}`).expect(404);
    const sly = { ...good, maker: '=cmd()' };
    await api.post('/api/models').send({ machine: sly, by: 'crew-2', note: '', basedOn: null }).expect(422);
    const forClass = { machine: templateOf('car'), by: 'crew-2', note: '', basedOn: null };
    await api.post('/api/models').send(forClass).expect(409);
  });

  it('keep photos upright, small and without metadata, and refuse what is no picture', async () => {
    const { api } = await sharedServer();
    const { id } = (await add(found('testmake-photo'))).machine;
    const picture = await sharp({ create: { width: 3000, height: 1000, channels: 3, background: '#456' } })
      .withExif({ IFD0: { Copyright: 'Somebody', Artist: 'Somebody' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const entry = (
      await api
        .post(`/api/models/${id}/photos`)
        .field('by', 'crew-2')
        .attach('photo', picture, 'a.jpg')
        .expect(201)
    ).body as AtlasEntry;
    const [photo] = entry.photos;
    // Turned upright: what lay 3000 wide stands 1600 high.
    expect([photo!.widthPx, photo!.heightPx]).toEqual([533, 1600]);
    expect(entry.history[0]!.kind).toBe('photo');
    const kept = (await api.get(`/api/models/${id}/photos/${photo!.id}`).expect(200)).body as Buffer;
    const meta = await sharp(kept).metadata();
    expect(meta.format).toBe('jpeg');
    expect(meta.exif).toBeUndefined();
    expect(kept.includes('Somebody')).toBeFalse();

    const send = (content: Buffer, name: string) =>
      api.post(`/api/models/${id}/photos`).field('by', 'crew-2').attach('photo', content, name);
    await send(Buffer.from('not a picture'), 'a.jpg').expect(415);
    await send(picture.subarray(0, 400), 'cut.jpg').expect(415);
    await send(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'), 'a.svg').expect(415);
    await send(Buffer.alloc(13 * 1024 * 1024), 'big.jpg').expect(413);
    await api.post(`/api/models/${id}/photos`).field('by', 'crew-2').expect(400);
    expect(((await api.get(`/api/models/${id}`)).body as AtlasEntry).photos.length).toBe(1);
  });
});

async function readAtlas(
  file: string | Uint8Array,
  pieceBytes?: number,
): Promise<{ machines: Machine[]; faults: RowFault[] }> {
  const faults: RowFault[] = [];
  const machines: Machine[] = [];
  for await (const machine of readMachines(windowOn(file, pieceBytes), faults)) machines.push(machine);
  return { machines, faults: faults.sort((a, b) => a.line - b.line) };
}

describe('atlas files', () => {
  it('are read the same in pieces of any size, with the same faults on the same lines', async () => {
    const some = SHIPPED.slice(0, 6);
    const json = JSON.stringify(JSON.parse(await asJson(some)), null, 1);
    const csv = await asCsv(some);
    const files = [
      await asJson(some),
      json,
      csv,
      csv.replaceAll('\n', '\r\n'),
      json
        .replace('"systemVolts": 12', '"systemVolts": 48')
        .replace(/"maker": "[^"]+"/, '"maker": "Ünwörth 🔋"'),
      json.slice(0, json.length - 900),
      csv.slice(0, csv.length - 40),
      csv.replace(',ground-point,', ',ground-pint,').replace(',glass,', ',glas,'),
    ];
    for (const [at, file] of files.entries()) {
      const whole = await readAtlas(file);
      if (at < 4) expect(whole.faults).toEqual([]);
      else expect(whole.faults.length).withContext(`file ${at}`).toBeGreaterThan(0);
      for (const pieceBytes of [1, 7, 64, 1000, 4093]) {
        const read = await readAtlas(file, pieceBytes);
        expect(read).withContext(`file ${at}, pieces of ${pieceBytes}`).toEqual(whole);
      }
    }
  });

  it('give back exactly what went in, as JSON and as CSV', async () => {
    for (const text of [await asJson(SHIPPED), await asCsv(SHIPPED)]) {
      const { machines, faults } = await readAtlas(text);
      expect(faults).toEqual([]);
      expect(JSON.parse(JSON.stringify(machines))).toEqual(JSON.parse(JSON.stringify(SHIPPED)));
    }
  });

  it('bring text back that a spreadsheet would take for a formula, and text that begins with the mark against it', async () => {
    const [machine] = SHIPPED as [Machine];
    const labels = ['-ve stud', "'quoted", "'=x", '- 12', "''"];
    const odd = { ...machine, cautions: labels };
    const csv = await asCsv([odd]);
    expect(csv).not.toMatch(/(^|,)"?(-ve|- 12|=x)/m);
    const { machines, faults } = await readAtlas(csv);
    expect(faults).toEqual([]);
    expect(machines[0]!.cautions).toEqual(labels);
  });

  it('are read no further after fifty faults: what stands behind them is not looked at', async () => {
    const head = '{"format":"voltrek-atlas","version":2,"machines":[';
    const { faults } = await readAtlas(`${head}${'{},'.repeat(15_000)} and no JSON at all`);
    expect(faults.length).toBeGreaterThanOrEqual(50);
    expect(faults.length).toBeLessThan(100);
    expect(faults.every(({ message }) => !message.includes('cut off'))).toBeTrue();
    const [columns, machine] = (await asCsv(SHIPPED.slice(0, 1))).split('\n');
    const csv = `${columns}\n${machine}\n${'x\n'.repeat(5_000)}"never closed`;
    const ofCsv = (await readAtlas(csv)).faults;
    expect(ofCsv.length).toBe(50);
    expect(ofCsv.at(-1)!.message).toBe(`1 cells where ${columns!.split(',').length} are due`);
  });

  it('are read bit by bit, so that nobody waits for the whole of a large one @long', async () => {
    const many = Array.from({ length: 600 }, (_, i) => ({ ...SHIPPED[i % 30]!, id: `m-${i}` }));
    for (const file of [await asJson(many), await asCsv(many)]) {
      let last = performance.now();
      let worst = 0;
      const ticking = setInterval(() => {
        worst = Math.max(worst, performance.now() - last);
        last = performance.now();
      }, 1);
      const began = performance.now();
      const { machines, faults } = await readAtlas(file);
      const took = performance.now() - began;
      clearInterval(ticking);
      worst = Math.max(worst, performance.now() - last);
      expect(faults).toEqual([]);
      expect(machines.length).toBe(600);
      // A share of the whole, whatever the machine: without turns it is all of it.
      expect(worst / took).toBeLessThan(0.4);
    }
  });

  it('of the first version are read in the words of today', async () => {
    const now = await asJson(SHIPPED.slice(0, 3));
    const before = now
      .replace('"version":2', '"version":1')
      .replaceAll('"batteries"', '"blocks"')
      .replaceAll('"battery-', '"block-')
      .replaceAll('"battery"', '"block"');
    const { machines, faults } = await readAtlas(before);
    expect(faults).toEqual([]);
    expect(JSON.stringify(machines)).toBe(JSON.stringify((await readAtlas(now)).machines));
  });

  it('tell every fault by its line', async () => {
    const lines = (await asCsv(SHIPPED.slice(0, 2))).split('\n');
    const at = lines.findIndex((l) => l.includes(',ground,ground-point,'));
    const broken = [...lines];
    broken[at] = broken[at]!.replace('ground-point', 'ground-pint');
    const release = lines.findIndex((l) => l.includes(',release,release,'));
    broken[release] = broken[release]!.replace(',release,release,', ',release,=1+1,');
    const { faults } = await readAtlas(broken.join('\n'));
    const inQuotes = lines
      .slice(0, at + 1)
      .join('\n')
      .split('\n').length;
    expect(faults.map((f) => f.line)).toContain(inQuotes);
    expect(faults.find((f) => f.line === inQuotes)!.message).toMatch(/must be one of/);
    expect(faults.some((f) => f.message.includes('formula'))).toBeTrue();

    const json = (await asJson(SHIPPED.slice(0, 3))).replace('"systemVolts":12', '"systemVolts":48');
    const wrong = (await readAtlas(json)).faults;
    expect(wrong[0]!.line).toBe(2);
    expect(wrong[0]!.path).toBe('systemVolts');
  });

  it('refuse what is cut off, of another format or another encoding', async () => {
    const json = await asJson(SHIPPED);
    expect((await readAtlas(json.slice(0, 4000))).faults[0]!.message).toMatch(/cut off/);
    expect((await readAtlas('{"format":"other"}')).faults[0]!.message).toMatch(/voltrek-atlas/);
    const csv = await asCsv(SHIPPED);
    const cut = csv.slice(0, csv.indexOf('"', 2000) + 8);
    expect((await readAtlas(cut)).faults.length).toBeGreaterThan(0);
    expect((await readAtlas(csv.trimEnd())).faults.at(-1)!.message).toMatch(/does not end/);
    expect((await readAtlas('')).faults[0]!.message).toMatch(/empty/);
    expect((await readAtlas('model_id,row,colour\n')).faults[0]!.message).toMatch(/not known: colour/);
    expect((await readAtlas('model_id,row\nx,point\n')).faults[0]!.message).toMatch(/no machine row/);
    await expectAsync(readAtlas(new Uint8Array([0xff, 0xfe, 0x41, 0]))).toBeRejectedWithError(/UTF-8/);
  });

  it('keep which post is on the body, in either format', async () => {
    const old = SHIPPED.find(({ earth }) => earth === 'positive')!;
    for (const content of [await asCsv([old]), await asJson([old])]) {
      const { machines, faults } = await readAtlas(content);
      expect(faults).toEqual([]);
      expect(machines[0]!.earth).toBe('positive');
    }
    const csv = (await asCsv([old])).replace(',positive,', ',upward,');
    const { faults } = await readAtlas(csv);
    expect(faults.map(({ path }) => path)).toEqual(['earth']);
  });

  it('show what would change, then change all of it or nothing', async () => {
    const { api, database } = await sharedServer();
    const base = (await add(found('testmake-import'))).machine;
    const changed = { ...base, never: ['Push it.'] };
    const file = Buffer.from(await asCsv([changed, found('testmake-import-2', 'New one')]));
    const preview = (await api.post('/api/models/preview').attach('file', file, 'a.csv').expect(200))
      .body as ImportReport;
    expect(preview.added).toEqual(['Testmake New one']);
    expect(preview.changed).toEqual([{ name: 'Testmake Odd one', parts: ['never'] }]);
    expect(preview.applied).toBeFalse();
    await api.get('/api/models/testmake-import-2').expect(404);

    const importOf = (content: Buffer, basis: number) =>
      api
        .post('/api/models/import')
        .field('by', 'crew-1')
        .field('basis', String(basis))
        .attach('file', content, 'a.csv');
    await importOf(file, preview.basis - 1).expect(409);
    const half = Buffer.from(await asCsv([changed, { ...found('testmake-import-3'), systemVolts: 24 }]));
    await importOf(half, preview.basis).expect(422);
    expect(((await api.get(`/api/models/${base.id}`)).body as AtlasEntry).revision).toBe(1);
    await importOf(file, preview.basis).expect(200);
    expect(((await api.get(`/api/models/${base.id}`)).body as AtlasEntry).machine.never).toEqual([
      'Push it.',
    ]);
    expect(((await api.get('/api/models/testmake-import-2')).body as AtlasEntry).history[0]!.kind).toBe(
      'imported',
    );
    const search = await api.get('/api/models?q=testmake+new').expect(200);
    expect((search.body as MachineSearch).machines.map((m) => m.id)).toContain('testmake-import-2');
    // Nothing of it is left beside the atlas, taken or refused.
    expect(await database.db.$count(stagedModels)).toBe(0);
  });

  it('come with their schema', async () => {
    const { api } = await sharedServer();
    const schema = (await api.get('/api/models/schema.json').expect(200)).body as {
      properties: { machines: { items: { properties: object } } };
    };
    expect(Object.keys(schema.properties.machines.items.properties)).toContain('outline');
    const exported = (await api.get('/api/models/export.json').expect(200)).body as { machines: unknown[] };
    expect(exported.machines.length).toBeGreaterThanOrEqual(30);
    const csv = await api.get('/api/models/export.csv').expect(200);
    expect(csv.text.split('\n')[0]).toContain('model_id');
  });
});

describe('a job on an unknown machine', () => {
  it('goes on with the entry that was made of it', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob(templateId('car'));
    const { id } = (await add(found('testmake-identified'))).machine;
    expect((await send(jobId, 'model.identified', { modelId: 'nowhere' })).status).toBe(404);
    expect((await send(jobId, 'model.identified', { modelId: id })).status).toBe(201);
    const detail = (await api.get(`/api/jobs/${jobId}`)).body as { machine: Machine };
    expect(detail.machine.id).toBe(id);
  });
});

describe('kit marks', () => {
  it('stand after a pack was used, once, until somebody says it is done', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    await send(jobId, 'polarity.proved', { signs: ['mark', 'meter'] });
    await send(jobId, 'plan.chosen', {
      optionId: 'pack-lithium@12',
      sourceId: 'pack-lithium',
      leadSetId: null,
      sourceKind: 'lithium-pack',
      outlook: 'cranks',
      odds: null,
      starterVolts: null,
      starterAmps: null,
      rpm: null,
      neededRpm: null,
      wakeVolts: null,
      postVolts: null,
      waitMinutes: 0,
      chargeOnly: false,
      inputs: [],
    });
    await send(jobId, 'clamp.attached', { clamp: 'redCasualty', pointId: 'battery-plus' });
    type Vans = { marks: { id: string; kitItemId: string; need: string; jobId: string }[] }[];
    const marks = async () =>
      ((await api.get('/api/vans').expect(200)).body as Vans)
        .flatMap((v) => v.marks)
        .filter((m) => m.jobId === jobId);
    expect(await marks()).toEqual([]);
    expect((await send(jobId, 'clamp.detached', { clamp: 'redCasualty' })).status).toBe(201);
    await send(jobId, 'symptom.recorded', { symptom: 'silence' });
    const [mark, ...others] = await marks();
    expect(others).toEqual([]);
    expect(mark).toEqual(jasmine.objectContaining({ kitItemId: 'pack-lithium', need: 'recharge' }));
    await api.post(`/api/vans/marks/${mark!.id}/done`).send({ by: 'crew-9' }).expect(404);
    await api.post(`/api/vans/marks/${mark!.id}/done`).send({ by: 'crew-3' }).expect(200);
    await api.post(`/api/vans/marks/${mark!.id}/done`).send({ by: 'crew-3' }).expect(404);
    await api.post(`/api/vans/marks/${randomUUID()}/done`).send({ by: 'crew-3' }).expect(404);
    expect(await marks()).toEqual([]);
  });
});
