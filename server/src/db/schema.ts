import type { ChangeKind, Confidence, CrewMember } from '@voltrek/contracts';
import type {
  EventType,
  JobEvent,
  KitItem,
  KitNeed,
  Machine,
  Stage,
  Suspect,
  VerdictKind,
} from '@voltrek/core';
import {
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  serial,
  pgTable,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';

const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

/** Facts about this database itself, such as whether the demo data has been loaded. */
export const facts = pgTable('facts', { key: text().primaryKey(), value: text().notNull() });

export const crew = pgTable('crew', {
  id: text().primaryKey(),
  name: text().notNull(),
  role: text().$type<CrewMember['role']>().notNull(),
});

export const models = pgTable(
  'models',
  {
    id: text().primaryKey(),
    maker: text().notNull(),
    model: text().notNull(),
    machineClass: text('machine_class').notNull(),
    detail: jsonb().$type<Machine>().notNull(),
    confidence: text().$type<Confidence>().notNull().default('maker'),
    revision: integer().notNull().default(1),
    searchText: text('search_text').notNull().default(''),
  },
  (t) => [index('models_by_text').using('gin', t.searchText.op('gin_trgm_ops'))],
);

/** Every change of an atlas entry, kept for good. */
export const modelChanges = pgTable(
  'model_changes',
  {
    position: serial().primaryKey(),
    modelId: text('model_id')
      .notNull()
      .references(() => models.id),
    revision: integer().notNull(),
    kind: text().$type<ChangeKind>().notNull(),
    by: text()
      .notNull()
      .references(() => crew.id),
    at: instant('at').notNull(),
    note: text().notNull(),
    /** The entry as this change left it; null where its content stayed. */
    detail: jsonb().$type<Machine>(),
  },
  (t) => [uniqueIndex('model_changes_in_order').on(t.modelId, t.revision)],
);

/** Photos of a machine, as JPEG without metadata. */
export const modelPhotos = pgTable(
  'model_photos',
  {
    id: uuid().primaryKey(),
    modelId: text('model_id')
      .notNull()
      .references(() => models.id),
    by: text()
      .notNull()
      .references(() => crew.id),
    at: instant('at').notNull(),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    jpeg: bytes().notNull(),
  },
  (t) => [index('model_photos_of').on(t.modelId, t.at)],
);

/** Every time a house rule was set. The newest of each key stands; none is ever changed. */
export const ruleSettings = pgTable(
  'rule_settings',
  {
    position: serial().primaryKey(),
    key: text().notNull(),
    value: jsonb().$type<string | number>().notNull(),
    by: text()
      .notNull()
      .references(() => crew.id),
    at: instant('at').notNull(),
  },
  (table) => [index('rule_settings_key').on(table.key, table.position)],
);

export const vans = pgTable('vans', { id: text().primaryKey(), name: text().notNull() });

export const kitItems = pgTable('kit_items', {
  id: text().primaryKey(),
  vanId: text('van_id')
    .notNull()
    .references(() => vans.id),
  position: integer().notNull(),
  detail: jsonb().$type<KitItem>().notNull(),
});

/** What kit needs after it was used. A mark stands until somebody says it is done. */
export const kitMarks = pgTable(
  'kit_marks',
  {
    id: uuid().primaryKey(),
    kitItemId: text('kit_item_id')
      .notNull()
      .references(() => kitItems.id),
    need: text().$type<KitNeed>().notNull(),
    jobId: uuid('job_id').notNull(),
    at: instant('at').notNull(),
    doneBy: text('done_by').references(() => crew.id),
    doneAt: instant('done_at'),
  },
  (t) => [uniqueIndex('kit_marks_once').on(t.kitItemId, t.need, t.jobId)],
);

export const calls = pgTable('calls', {
  id: text().primaryKey(),
  number: integer().notNull().unique(),
  receivedAt: instant('received_at').notNull(),
  title: text().notNull(),
  placeName: text('place_name').notNull(),
  said: text().notNull(),
  modelId: text('model_id')
    .notNull()
    .references(() => models.id),
  ambientC: doublePrecision('ambient_c').notNull(),
  urgent: boolean().notNull(),
});

/** What the log of each job says, kept beside it for search. Always made from the log, in the same transaction. */
export const jobs = pgTable(
  'jobs',
  {
    id: uuid().primaryKey(),
    callId: text('call_id')
      .notNull()
      .unique()
      .references(() => calls.id),
    callNumber: integer('call_number').notNull(),
    title: text().notNull(),
    placeName: text('place_name').notNull(),
    modelId: text('model_id')
      .notNull()
      .references(() => models.id),
    stage: text().$type<Stage>().notNull(),
    state: text().$type<'open' | 'closed'>().notNull(),
    verdict: text().$type<VerdictKind>(),
    suspect: text().$type<Suspect>(),
    lowestRestVolts: doublePrecision('lowest_rest_volts'),
    openedAt: instant('opened_at').notNull(),
    closedAt: instant('closed_at'),
    by: text().notNull(),
    revision: integer().notNull(),
    searchText: text('search_text').notNull(),
  },
  (t) => [
    index('jobs_by_closing').on(t.state, t.closedAt.desc()),
    index('jobs_by_model').on(t.modelId, t.openedAt),
    index('jobs_by_text').using('gin', t.searchText.op('gin_trgm_ops')),
  ],
);

/** The logs themselves: append-only. */
export const jobEvents = pgTable(
  'job_events',
  {
    id: uuid().primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id),
    position: integer().notNull(),
    at: instant('at').notNull(),
    by: text()
      .notNull()
      .references(() => crew.id),
    type: text().$type<EventType>().notNull(),
    data: jsonb().$type<JobEvent['data']>().notNull(),
  },
  (t) => [uniqueIndex('job_events_in_order').on(t.jobId, t.position)],
);
