import { plateKeyOf } from '@voltrek/contracts/search-text';
import {
  type Battery,
  type BatteryMoveKind,
  type CallChangeKind,
  type Fault,
  faultAt,
  type FileResource,
} from '@voltrek/contracts';
import type { ResourceRow } from '@voltrek/contracts/resource-files';
import { foldJob, type JobEvent, upgradeLog } from '@voltrek/core/job';
import type { KitItem } from '@voltrek/core/sources';
import { and, asc, gt, inArray } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { entriesByIds, modelById } from '../atlas/repository.js';
import type { Db, Tx } from '../db/database.js';
import { insertAll, upsert } from '../db/many-rows.js';
import {
  batteries,
  batteryMoves,
  callChanges,
  calls,
  crew,
  jobEvents,
  jobs,
  kitItems,
  models,
  people,
  vans,
  vehicles,
} from '../db/schema.js';
import { eventRow, rowOf } from '../jobs/repository.js';
import { rewriteRow, writeRecord } from '../jobs/whole-log.js';
import { vehicleSearchText } from '../vehicles/repository.js';

/** Tables that rows name others in. */
export const REFERENCED = { crew, models, vans, vehicles, calls } as const;
export type Referenced = keyof typeof REFERENCED;

/** A resource in the database, row for row as its file has it. */
export interface ResourceStore {
  /** Rows in order of id, a page at a time; only those with these ids where some are named. */
  readonly rows: (db: Db | Tx, ids?: readonly string[]) => AsyncGenerator<ResourceRow>;
  readonly nameOf: (row: ResourceRow) => string;
  /** The things that a row names and that must be there: the path, the table and the id. */
  readonly names: (row: ResourceRow) => readonly (readonly [path: string, table: Referenced, id: unknown])[];
  /** A field that no two may have in common: who holds one of these values already. */
  readonly unique?: {
    readonly field: string;
    readonly holders: (db: Db | Tx, values: readonly unknown[]) => Promise<ReadonlyMap<unknown, string>>;
  };
  /** Any other fault of a row; null where there is none. */
  readonly fault?: (row: ResourceRow) => Fault | null;
  readonly write: (tx: Tx, writes: readonly ResourceWrite[]) => Promise<void>;
}

/** A row of a file, and what stands in its place; null where nothing does. */
export interface ResourceWrite {
  readonly row: ResourceRow;
  readonly before: ResourceRow | null;
}

const PAGE = 200;
type Fields = Readonly<Record<string, unknown>>;

/** Values as JSON has them: moments as text. */
const plain = (value: unknown): unknown => (value instanceof Date ? value.toISOString() : value);
const pick = (row: Fields, fields: readonly string[]): Record<string, unknown> =>
  Object.fromEntries(fields.map((field) => [field, plain(row[field])]));
const moment = (value: unknown): Date => new Date(value as string);
const maybeMoment = (value: unknown): Date | null => (value === null ? null : moment(value));
const listOf = (row: ResourceRow | null, field: string): readonly ResourceRow[] =>
  (row?.[field] as readonly ResourceRow[] | undefined) ?? [];

/** Pages of a table in order of its id, each behind the last row of the one before. */
async function* pages<T extends Fields>(
  db: Db | Tx,
  table: PgTable,
  id: PgColumn,
  ids?: readonly string[],
): AsyncGenerator<T[]> {
  let last: string | null = null;
  do {
    const page = (await db
      .select()
      .from(table)
      .where(and(last === null ? undefined : gt(id, last), ids && inArray(id, [...ids])))
      .orderBy(asc(id))
      .limit(PAGE)) as unknown as T[];
    if (page.length > 0) yield page;
    last = page.length === PAGE ? (page.at(-1)!.id as string) : null;
  } while (last !== null);
}

function uniqueIn(
  table: PgTable,
  id: PgColumn,
  column: PgColumn,
  field: string,
): NonNullable<ResourceStore['unique']> {
  return {
    field,
    holders: async (db, values) => {
      const rows = await db
        .select({ id, value: column })
        .from(table)
        .where(inArray(column, [...values]));
      return new Map(rows.map((row) => [row.value, row.id as string]));
    },
  };
}

const idsOf = (page: readonly Fields[], field = 'id'): string[] =>
  page.map((row) => row[field] as string | null).filter((id) => id !== null);

/** A file does not tell nothing from an empty text. */
const orNull = (text: string | null): string | null => (text === '' ? null : text);

async function peopleOf(db: Db | Tx, ids: readonly string[]): Promise<Map<string, ResourceRow>> {
  if (ids.length === 0) return new Map();
  const found = await db
    .select()
    .from(people)
    .where(inArray(people.id, [...ids]));
  return new Map(found.map(({ id, name, phone }) => [id, { id, name: orNull(name), phone: orNull(phone) }]));
}

/** Writes the people that rows name; gives the id of each row's. */
async function writePeople(
  tx: Tx,
  writes: readonly ResourceWrite[],
  field: 'owner' | 'caller',
): Promise<(string | null)[]> {
  const named = writes.map(({ row }) => row[field] as { id: string; name: string; phone: string } | null);
  const each = new Map(named.flatMap((person) => (person ? [[person.id, person]] : [])));
  const ids = [...each.keys()];
  const known = new Map(
    ids.length === 0
      ? []
      : (await tx.select().from(people).where(inArray(people.id, ids))).map((p) => [p.id, p.createdAt]),
  );
  const rows = [...each.values()].map(({ id, name, phone }) => {
    return { id, name, phone, createdAt: known.get(id) ?? new Date() };
  });
  await upsert(tx, people, people.id, rows);
  return named.map((person) => person?.id ?? null);
}

/** Entries of a row's list that are new, as they go into their own table. */
const growth = <T>(
  writes: readonly ResourceWrite[],
  field: string,
  rowOfEntry: (entry: ResourceRow, id: string) => T,
): T[] =>
  writes.flatMap(({ row, before }) =>
    listOf(row, field)
      .slice(listOf(before, field).length)
      .map((entry) => rowOfEntry(entry, row.id as string)),
  );

const crewStore: ResourceStore = {
  async *rows(db, ids) {
    for await (const page of pages(db, crew, crew.id, ids))
      for (const row of page) yield pick(row, ['id', 'name', 'role', 'retiredAt']);
  },
  nameOf: ({ name }) => name as string,
  names: () => [],
  async write(tx, writes) {
    const rows = writes.map(({ row }) => ({ ...row, retiredAt: maybeMoment(row.retiredAt) }));
    await upsert(tx, crew, crew.id, rows as (typeof crew.$inferInsert)[]);
  },
};

const kitStore: ResourceStore = {
  async *rows(db, ids) {
    for await (const page of pages<typeof vans.$inferSelect>(db, vans, vans.id, ids)) {
      const items = await db
        .select()
        .from(kitItems)
        .where(inArray(kitItems.vanId, idsOf(page)))
        .orderBy(asc(kitItems.position));
      for (const van of page)
        yield {
          ...pick(van, ['id', 'name', 'retiredAt']),
          items: items
            .filter((item) => item.vanId === van.id)
            .map(({ detail, retiredAt }) => ({ ...detail, retiredAt: plain(retiredAt) })),
        };
    }
  },
  nameOf: ({ name }) => name as string,
  names: (row) =>
    listOf(row, 'items').flatMap(({ modelId }, i) =>
      modelId === undefined ? [] : [[`items[${i}].modelId`, 'models', modelId] as const],
    ),
  async write(tx, writes) {
    const vansOf = writes.map(({ row }) => ({
      id: row.id as string,
      name: row.name as string,
      retiredAt: maybeMoment(row.retiredAt),
    }));
    await upsert(tx, vans, vans.id, vansOf);
    const items = writes.flatMap(({ row }) =>
      listOf(row, 'items').map(({ retiredAt, ...detail }, position) => ({
        id: detail.id as string,
        vanId: row.id as string,
        position,
        detail: detail as unknown as KitItem,
        retiredAt: maybeMoment(retiredAt),
      })),
    );
    await upsert(tx, kitItems, kitItems.id, items);
  },
};

const VEHICLE = ['id', 'plate', 'fleetNumber', 'serialNumber', 'modelId', 'notes', 'createdAt'] as const;

const vehicleStore: ResourceStore = {
  async *rows(db, ids) {
    for await (const page of pages(db, vehicles, vehicles.id, ids)) {
      const owners = await peopleOf(db, idsOf(page, 'ownerId'));
      for (const row of page)
        yield { ...pick(row, VEHICLE), owner: owners.get(row.ownerId as string) ?? null };
    }
  },
  nameOf: ({ plate, fleetNumber, serialNumber, id }) =>
    (plate ?? fleetNumber ?? serialNumber ?? id) as string,
  names: ({ modelId }) => [['modelId', 'models', modelId]],
  async write(tx, writes) {
    const owners = await writePeople(tx, writes, 'owner');
    const named = await entriesByIds(tx, [...new Set(writes.map(({ row }) => row.modelId as string))]);
    const existing = await tx
      .select({ id: vehicles.id, revision: vehicles.revision })
      .from(vehicles)
      .where(
        inArray(
          vehicles.id,
          writes.map(({ row }) => row.id as string),
        ),
      );
    const revisions = new Map(existing.map(({ id, revision }) => [id, revision]));
    const rows = writes.map(({ row }, i) => {
      const { owner: _owner, createdAt, ...rest } = row;
      const vehicle = rest as Pick<typeof vehicles.$inferInsert, 'id' | 'modelId' | 'notes'> & {
        plate: string | null;
        fleetNumber: string | null;
        serialNumber: string | null;
      };
      const { maker, model } = named.get(vehicle.modelId)!.machine;
      return {
        ...vehicle,
        ownerId: owners[i]!,
        createdAt: moment(createdAt),
        plateKey: vehicle.plate === null ? null : plateKeyOf(vehicle.plate),
        searchText: vehicleSearchText(vehicle, `${maker} ${model}`),
        revision: (revisions.get(vehicle.id) ?? 0) + 1,
      };
    });
    await upsert(tx, vehicles, vehicles.id, rows);
  },
};

const BATTERY = [
  'id',
  'code',
  'rating',
  'dateMark',
  'state',
  'vehicleId',
  'place',
  'vanId',
  'since',
] as const;
const MOVE = ['kind', 'at', 'by', 'vehicleId', 'place', 'vanId', 'note', 'jobId', 'eventId'] as const;

const batteryStore: ResourceStore = {
  unique: uniqueIn(batteries, batteries.id, batteries.code, 'code'),
  async *rows(db, ids) {
    for await (const page of pages(db, batteries, batteries.id, ids)) {
      const moves = await db
        .select()
        .from(batteryMoves)
        .where(inArray(batteryMoves.batteryId, idsOf(page)))
        .orderBy(asc(batteryMoves.position));
      for (const row of page)
        yield {
          ...pick(row, BATTERY),
          moves: moves.filter((m) => m.batteryId === row.id).map((m) => pick(m, MOVE)),
        };
    }
  },
  nameOf: ({ code }) => code as string,
  names: (row) => [
    ['vehicleId', 'vehicles', row.vehicleId],
    ['vanId', 'vans', row.vanId],
    ...listOf(row, 'moves').flatMap(
      ({ vehicleId, vanId }, i) =>
        [
          [`moves[${i}].vehicleId`, 'vehicles', vehicleId],
          [`moves[${i}].vanId`, 'vans', vanId],
        ] as const,
    ),
  ],
  async write(tx, writes) {
    const rows = writes.map(({ row: { moves: _moves, since, ...row } }) => ({
      ...(row as unknown as Omit<Battery, 'since'>),
      since: moment(since),
    }));
    await upsert(tx, batteries, batteries.id, rows);
    const moves = growth(writes, 'moves', (move, batteryId) => ({
      ...(move as unknown as Omit<typeof batteryMoves.$inferInsert, 'at' | 'batteryId'>),
      kind: move.kind as BatteryMoveKind,
      at: moment(move.at),
      batteryId,
    }));
    await insertAll(tx, batteryMoves, moves);
  },
};

const CALL = [
  'id',
  'number',
  'receivedAt',
  'title',
  'placeName',
  'said',
  'modelId',
  'vehicleId',
  'ambientC',
  'urgent',
  'state',
  'vanId',
  'technicianId',
  'promisedAt',
  'endedAt',
] as const;
const CHANGE = ['kind', 'at', 'by', 'vanId', 'technicianId', 'reason'] as const;

const callStore: ResourceStore = {
  unique: uniqueIn(calls, calls.id, calls.number, 'number'),
  async *rows(db, ids) {
    for await (const page of pages(db, calls, calls.id, ids)) {
      const callers = await peopleOf(db, idsOf(page, 'callerId'));
      const changes = await db
        .select()
        .from(callChanges)
        .where(inArray(callChanges.callId, idsOf(page)))
        .orderBy(asc(callChanges.position));
      for (const row of page)
        yield {
          ...pick(row, CALL),
          caller: callers.get(row.callerId as string) ?? null,
          changes: changes.filter((c) => c.callId === row.id).map((c) => pick(c, CHANGE)),
        };
    }
  },
  nameOf: ({ number, title }) => `${number as number}, ${title as string}`,
  names: ({ modelId, vehicleId, vanId, technicianId }) => [
    ['modelId', 'models', modelId],
    ['vehicleId', 'vehicles', vehicleId],
    ['vanId', 'vans', vanId],
    ['technicianId', 'crew', technicianId],
  ],
  async write(tx, writes) {
    const callers = await writePeople(tx, writes, 'caller');
    const rows = writes.map(({ row: { caller: _caller, changes: _changes, ...row } }, i) => ({
      ...row,
      callerId: callers[i]!,
      receivedAt: moment(row.receivedAt),
      promisedAt: maybeMoment(row.promisedAt),
      endedAt: maybeMoment(row.endedAt),
    }));
    await upsert(tx, calls, calls.id, rows as unknown as (typeof calls.$inferInsert)[]);
    const changes = growth(writes, 'changes', (change, callId) => ({
      ...(change as unknown as Omit<typeof callChanges.$inferInsert, 'at' | 'callId'>),
      kind: change.kind as CallChangeKind,
      at: moment(change.at),
      callId,
    }));
    await insertAll(tx, callChanges, changes);
  },
};

const logOf = (row: ResourceRow): JobEvent[] =>
  listOf(row, 'events').map((event) => ({ ...event, jobId: row.id }) as unknown as JobEvent);

const jobStore: ResourceStore = {
  unique: uniqueIn(jobs, jobs.id, jobs.callId, 'callId'),
  fault: (row) => {
    const job = foldJob(upgradeLog(logOf(row)));
    if (!job) return faultAt('', 'noOpening');
    return job.call.callId === row.callId ? null : faultAt('', 'otherCall', { call: job.call.callId });
  },
  async *rows(db, ids) {
    for await (const page of pages(db, jobs, jobs.id, ids)) {
      const events = await db
        .select()
        .from(jobEvents)
        .where(inArray(jobEvents.jobId, idsOf(page)))
        .orderBy(asc(jobEvents.jobId), asc(jobEvents.position));
      for (const row of page)
        yield {
          ...pick(row, ['id', 'callId', 'vehicleId', 'vanId']),
          events: events
            .filter((e) => e.jobId === row.id)
            .map(({ id, at, heardAt, by, sentBy, type, data }) => ({
              id,
              at: plain(at),
              ...(heardAt && { heardAt: plain(heardAt) }),
              by,
              ...(sentBy && { sentBy }),
              type,
              data,
            })),
        };
    }
  },
  nameOf: ({ callId }) => `of ${callId as string}`,
  names: (row) => [
    ['callId', 'calls', row.callId],
    ['vehicleId', 'vehicles', row.vehicleId],
    ['vanId', 'vans', row.vanId],
    ...listOf(row, 'events').flatMap(
      ({ by, sentBy, data }, i) =>
        [
          [`events[${i}].by`, 'crew', by],
          [`events[${i}].sentBy`, 'crew', sentBy],
          [`events[${i}].data.modelId`, 'models', (data as ResourceRow).modelId],
        ] as const,
    ),
  ],
  async write(tx, writes) {
    for (const { row, before } of writes) {
      const log = logOf(row);
      const job = foldJob(upgradeLog(log))!;
      const machine = (await modelById(tx, job.modelId))!;
      const kept = { job, vehicleId: row.vehicleId as string, vanId: row.vanId as string };
      if (before) await rewriteRow(tx, kept, machine);
      else await tx.insert(jobs).values(rowOf(kept, machine));
      const known = listOf(before, 'events').length;
      await insertAll(
        tx,
        jobEvents,
        log.slice(known).map((event, i) => eventRow(event, known + i)),
      );
      await writeRecord(tx, kept, machine);
    }
  },
};

export const RESOURCE_STORES: Readonly<Record<FileResource, ResourceStore>> = {
  crew: crewStore,
  kit: kitStore,
  vehicles: vehicleStore,
  batteries: batteryStore,
  calls: callStore,
  jobs: jobStore,
};
