import { text as textFrom } from 'node:stream/consumers';
import { randomUUID } from 'node:crypto';
import { FILE_RESOURCES, type FileResource, type ImportReport, type RowFault } from '@voltrek/contracts';
import { RESOURCE_ROWS, type ResourceRow } from '@voltrek/contracts/resource-files';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import type supertest from 'supertest';
import { allMachines, type ChangedEntry, writeMachines } from '../src/atlas/repository.js';
import { testDatabase } from './test-database.js';
import { crew } from '../src/db/schema.js';
import { loadDemo } from '../src/demo/load.js';
import { type CsvRow, readCsvRows, writeCsvRows } from '../src/files/csv-rows.js';
import { cellsOf, rowOf } from '../src/files/cells.js';
import { csvColumns, importResource, previewResource, toCsv, toJson } from '../src/files/resource-file.js';
import { rebuild } from '../src/jobs/rebuild.js';
import { openJob, send, sharedServer } from './shared-server.js';
import { windowOn } from './windows.js';

async function exported(resource: FileResource, form: 'json' | 'csv'): Promise<string> {
  const { api } = await sharedServer();
  return (await api.get(`/api/files/${resource}/export.${form}`).expect(200)).text;
}

async function preview(resource: FileResource, text: string): Promise<ImportReport> {
  const { api } = await sharedServer();
  const sent = api.post(`/api/files/${resource}/preview`).attach('file', Buffer.from(text), 'file');
  return (await sent.expect(200)).body as ImportReport;
}

async function bring(resource: FileResource, text: string, basis: number): Promise<supertest.Response> {
  const { api } = await sharedServer();
  return api
    .post(`/api/files/${resource}/import`)
    .field('by', 'crew-1')
    .field('basis', String(basis))
    .attach('file', Buffer.from(text), 'file');
}

const rowsOf = (json: string): ResourceRow[] => (JSON.parse(json) as { rows: ResourceRow[] }).rows;
const fileOf = (resource: FileResource, rows: readonly ResourceRow[]): string =>
  JSON.stringify({ format: `voltrek-${resource}`, version: 1, rows }, null, 1);

describe('files of crew, kit, vehicles, batteries, calls and jobs', () => {
  it('go back in unchanged, as JSON and as CSV, and change nothing', async () => {
    for (const resource of FILE_RESOURCES)
      for (const form of ['json', 'csv'] as const) {
        const report = await preview(resource, await exported(resource, form));
        expect(report.faults).withContext(`${resource} ${form}`).toEqual([]);
        expect([report.added.length, report.changed.length])
          .withContext(`${resource} ${form}`)
          .toEqual([0, 0]);
        expect(report.same).withContext(`${resource} ${form}`).toBeGreaterThan(1);
      }
  });

  it('make the same house beside the atlas: each file comes out as it went in, and records are as the logs make them @long', async () => {
    const { database } = await sharedServer();
    for (const form of [toJson, toCsv]) {
      const empty = await testDatabase();
      const { db } = empty;
      await loadDemo(empty, new Date(), true);
      await db.insert(crew).values({ id: 'crew-1', name: 'First', role: 'crew-lead' });
      await db.transaction(async (tx) => {
        const entries: ChangedEntry[] = [];
        for await (const machine of allMachines(database.db)) entries.push({ machine, revision: 1 });
        const change = { kind: 'imported', by: 'crew-1', at: new Date(), note: '' } as const;
        await writeMachines(tx, entries, 'maker', change);
      });
      for (const resource of FILE_RESOURCES) {
        const file = await textFrom(form(database.db, resource));
        const { basis, faults } = await previewResource(db, resource, windowOn(file));
        expect(faults).withContext(resource).toEqual([]);
        await importResource(empty, resource, windowOn(file), 'crew-1', basis);
        expect(await textFrom(form(db, resource)))
          .withContext(resource)
          .toBe(file);
      }
      expect((await rebuild(db)).differed).toEqual([]);
      await empty.close();
    }
  });

  it('fit the schema that is published for them', async () => {
    const { api } = await sharedServer();
    for (const resource of FILE_RESOURCES) {
      const schema = (await api.get(`/api/files/${resource}/schema.json`).expect(200)).body as object;
      const check = new Ajv2020({ strict: false, validateFormats: false }).compile(schema);
      expect(check(JSON.parse(await exported(resource, 'json'))))
        .withContext(`${resource} ${JSON.stringify(check.errors)}`)
        .toBeTrue();
      expect(check({ format: `voltrek-${resource}`, version: 1, rows: [{ id: 7 }] }))
        .withContext(resource)
        .toBeFalse();
    }
    await api.get('/api/files/secrets/export.json').expect(404);
  });

  it('change what they say otherwise, once the preview was agreed to, and nothing when it has changed since', async () => {
    const [first] = rowsOf(await exported('vehicles', 'json'));
    const owner = { id: randomUUID(), name: 'Tolva Rill', phone: '0555 0199' };
    const found = { ...first!, id: `found-${randomUUID()}`, plate: "=QX'1", fleetNumber: '007', owner };
    const file = fileOf('vehicles', [{ ...first!, notes: '-ve stud is loose' }, found]);
    const told = await preview('vehicles', file);
    expect(told.faults).toEqual([]);
    expect(told.added).toEqual(["=QX'1"]);
    expect(told.changed.map((c) => c.parts)).toEqual([['notes']]);
    expect((await bring('vehicles', file, told.basis + 1)).status).toBe(409);
    const done = await bring('vehicles', file, told.basis);
    expect(done.body).toEqual({ ...told, applied: true });
    const again = rowsOf(await exported('vehicles', 'json'));
    expect(again.find((row) => row.id === found.id)).toEqual(found);
    // A text that a spreadsheet would take for a formula or number comes back from the CSV as it was.
    expect(await preview('vehicles', await exported('vehicles', 'csv'))).toEqual(
      jasmine.objectContaining({ added: [], changed: [], faults: [] }),
    );
    const { api } = await sharedServer();
    const { vehicle } = (await api.get(`/api/vehicles/${found.id}`).expect(200)).body as {
      vehicle: { notes: string; plate: string };
    };
    expect(vehicle.plate).toBe("=QX'1");
  });

  it('replace no history: an older one changes nothing, a longer one goes on, one told otherwise is refused', async () => {
    const jobId = await openJob();
    const pick = async (): Promise<ResourceRow> =>
      rowsOf(await exported('jobs', 'json')).find((row) => row.id === jobId)!;
    const before = await pick();
    await send(jobId, 'symptom.recorded', { symptom: 'slow-crank' });
    const now = await pick();
    const events = now.events as ResourceRow[];
    expect(events.length).toBe(2);
    expect(await preview('jobs', fileOf('jobs', [before]))).toEqual(
      jasmine.objectContaining({ changed: [], same: 1, faults: [] }),
    );
    const otherwise = { ...now, events: [events[0]!, { ...events[1]!, by: 'crew-2' }] };
    expect((await preview('jobs', fileOf('jobs', [otherwise]))).faults[0]!.message).toMatch(/differ here/);
    const more = { ...events[1]!, id: randomUUID(), data: { symptom: 'one-click' } };
    const longer = fileOf('jobs', [{ ...now, events: [...events, more] }]);
    const { basis } = await preview('jobs', longer);
    const answer = await bring('jobs', longer, basis);
    expect(answer.status).withContext(answer.text).toBe(200);
    expect(((await pick()).events as ResourceRow[]).length).toBe(3);
  });

  it('tell every fault by its line, and take nothing', async () => {
    const [vehicle] = rowsOf(await exported('vehicles', 'json'));
    const [battery] = rowsOf(await exported('batteries', 'json'));
    const job = rowsOf(await exported('jobs', 'json')).at(-1)!;
    const events = job.events as ResourceRow[];
    const cases: readonly (readonly [resource: FileResource, text: string, says: RegExp])[] = [
      ['vehicles', '', /the file is empty/],
      ['vehicles', fileOf('crew', []), /format must be "voltrek-vehicles"/],
      ['vehicles', fileOf('vehicles', [vehicle!]).slice(0, -20), /cut off/],
      ['vehicles', fileOf('vehicles', [vehicle!, vehicle!]), /is there twice/],
      ['vehicles', fileOf('vehicles', [{ ...vehicle!, modelId: 'no-such' }]), /no no-such in the atlas/],
      ['vehicles', fileOf('vehicles', [{ ...vehicle!, createdAt: '2026-02-30T00:00:00Z' }]), /instant/],
      ['vehicles', fileOf('vehicles', [{ ...vehicle!, colour: 'red' }]), /colour/],
      ['batteries', fileOf('batteries', [{ ...battery!, id: randomUUID() }]), /is taken by/],
      ['batteries', fileOf('batteries', [{ ...battery!, state: 'on-van', vanId: null }]), /name vanId/],
      ['jobs', fileOf('jobs', [{ ...job, events: events.slice(1) }]), /opens the job/],
      [
        'jobs',
        fileOf('jobs', [{ ...job, events: [{ ...events[0]!, by: 'nobody' }] }]),
        /no nobody in the crew/,
      ],
      ['jobs', fileOf('jobs', [{ ...job, callId: 'call-0' }]), /the events belong to call/],
      [
        'kit',
        fileOf('kit', [{ id: 'v', name: 'V', retiredAt: null, items: [{ kind: 'bomb' }] }]),
        /kind must be one of/,
      ],
      ['crew', 'row,id,name\ncrew,crew-9,Odd\n', /columns missing|role/],
      ['crew', 'row,id,name,role,retiredAt\nman,crew-9,Odd,technician,\n', /row must be one of crew/],
      [
        'kit',
        `${csvColumns('kit').join(',')}\nitem${','.repeat(csvColumns('kit').length - 1)}\n`,
        /needs its van row above/,
      ],
      ['crew', 'row,id,name,role,retiredAt\ncrew,crew-9,=Odd,technician,\n', /formula/],
    ];
    for (const [resource, text, says] of cases) {
      const { faults, basis } = await preview(resource, text);
      expect(faults.map((f) => `${f.path} ${f.message}`).join('; '))
        .withContext(String(says))
        .toMatch(says);
      const answer = await bring(resource, text, basis);
      expect(answer.status).withContext(String(says)).toBe(422);
    }
    const line = (await preview('vehicles', fileOf('vehicles', [vehicle!, { ...vehicle!, id: 'UPPER' }])))
      .faults[0]!.line;
    expect(line).toBeGreaterThan(4);
  });

  it('are read no further after fifty faults, however long they are', async () => {
    const bad = Array.from({ length: 3000 }, (_, i) => ({ id: `v-${i}` }));
    const csv = `row,id,name,role,retiredAt\n${'man,x,y,z,\n'.repeat(3000)}`;
    expect((await preview('vehicles', fileOf('vehicles', bad))).faults.length).toBe(50);
    expect((await preview('crew', csv)).faults.length).toBe(50);
  });

  it('hold any text in a CSV: what is written is what is read', async () => {
    const description = RESOURCE_ROWS.vehicles.schema.describe();
    const columns = csvColumns('vehicles');
    const text = fc
      .string({ minLength: 1, maxLength: 12 })
      .filter((s) => s.trim() === s && !s.includes('\r'));
    const maybe = fc.oneof(fc.constant(null), text);
    const row = fc.record({
      id: text,
      plate: maybe,
      fleetNumber: maybe,
      serialNumber: fc.oneof(
        maybe,
        fc.constantFrom('007', '1e5', 'true', '[1]', "'", "'x", '=1', '-ve stud'),
      ),
      modelId: text,
      owner: fc.oneof(fc.constant(null), fc.record({ id: text, name: maybe, phone: maybe })),
      notes: fc.string({ maxLength: 12 }).filter((s) => !s.includes('\r')),
      createdAt: text,
    });
    await fc.assert(
      fc.asyncProperty(fc.array(row, { minLength: 1, maxLength: 4 }), fc.nat(40), async (rows, size) => {
        const file =
          `${columns.join(',')}\n` +
          writeCsvRows(
            rows.map((r) => ({ row: 'vehicle', ...cellsOf(description, r) })),
            columns,
          );
        const faults: RowFault[] = [];
        const read: CsvRow<string>[] = [];
        for await (const found of readCsvRows(windowOn(file, size + 1), columns, ['row'], faults))
          read.push(found);
        expect(faults).toEqual([]);
        expect(read.map(({ cells }) => rowOf(description, cells))).toEqual(rows);
      }),
      { seed: 11, numRuns: 200 },
    );
  });
});
