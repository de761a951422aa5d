import type {
  AuditLine,
  BatteryMoveKind,
  BatteryState,
  CallChangeKind,
  CallState,
  ChangeKind,
  Confidence,
  CrewMember,
  ShiftLeft,
} from '@voltrek/contracts';
import type { BatteryRating } from '@voltrek/core/battery';
import type { Suspect } from '@voltrek/core/diagnosis';
import type {
  BatteryEntry,
  EventType,
  Job,
  JobEvent,
  JobOutcome,
  KitNeed,
  Stage,
  StartedBy,
} from '@voltrek/core/job';
import type { Machine, MachineClass } from '@voltrek/core/machine';
import type { ExamMarks, ExamRun } from '@voltrek/core/practice';
import type { KitItem } from '@voltrek/core/sources';
import type { FollowUp, VerdictKind } from '@voltrek/core/verdict';
import {
  boolean,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  serial,
  pgTable,
  primaryKey,
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
  /** Works here no longer; logs still name them. */
  retiredAt: instant('retired_at'),
});

/** How a member of the crew proves who they are: with a PIN, of which only a slow hash is kept. */
export const crewSecrets = pgTable('crew_secrets', {
  crewId: text('crew_id')
    .primaryKey()
    .references(() => crew.id),
  pinHash: text('pin_hash').notNull(),
  /** Wrong PINs since the last right one. */
  failures: integer().notNull().default(0),
  lockedUntil: instant('locked_until'),
  setAt: instant('set_at').notNull(),
});

/** Or with a passkey: the public half of it. */
export const passkeys = pgTable('passkeys', {
  id: text().primaryKey(),
  crewId: text('crew_id')
    .notNull()
    .references(() => crew.id),
  name: text().notNull(),
  publicKey: bytes('public_key').notNull(),
  counter: integer().notNull(),
  createdAt: instant('created_at').notNull(),
  usedAt: instant('used_at'),
});

/** Sessions: a person on a device. Of the device only the hash of its token is kept. */
export const sessions = pgTable(
  'sessions',
  {
    id: uuid().primaryKey(),
    deviceHash: text('device_hash').notNull(),
    crewId: text('crew_id')
      .notNull()
      .references(() => crew.id),
    device: text().notNull(),
    createdAt: instant('created_at').notNull(),
    seenAt: instant('seen_at').notNull(),
    /** Since when somebody else holds the device. */
    handedOverAt: instant('handed_over_at'),
    /** Ended: its row stands so that the device stays known. */
    endedAt: instant('ended_at'),
  },
  (t) => [uniqueIndex('sessions_of_device').on(t.deviceHash, t.crewId)],
);

/** Questions to a device, to be answered with a passkey: once, and soon. */
export const passkeyQuestions = pgTable('passkey_questions', {
  deviceHash: text('device_hash').primaryKey(),
  question: text().notNull(),
  until: instant('until').notNull(),
});

/** Sign-in acts, or those with a lead's or a finder's rights. */
export const audit = pgTable('audit', {
  position: serial().primaryKey(),
  at: instant('at').notNull(),
  by: text().references(() => crew.id),
  kind: text().$type<AuditLine['kind']>().notNull(),
  about: text().notNull(),
});

/** Callers and owners: kept here alone, so that a name and a number can be erased while jobs and records stand. */
export const people = pgTable('people', {
  id: uuid().primaryKey(),
  name: text(),
  phone: text(),
  /** They want no letters and no messages. */
  noLetters: boolean('no_letters').notNull().default(false),
  createdAt: instant('created_at').notNull(),
  erasedAt: instant('erased_at'),
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

/**
 * Entries of an import on their way into the atlas, a batch to an import. Unlogged: they cost no sync, and after a crash, when they are
 * worth nothing, the database has emptied it.
 */
export const stagedModels = pgTable(
  'staged_models',
  {
    batch: uuid().notNull(),
    position: integer().notNull(),
    revision: integer().notNull(),
    searchText: text('search_text').notNull(),
    detail: jsonb().$type<Machine>().notNull(),
    at: instant('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.batch, t.position] })],
);

/** A photo as each table of them keeps it: JPEG without metadata. */
const picture = () => ({
  by: text()
    .notNull()
    .references(() => crew.id),
  at: instant('at').notNull(),
  widthPx: integer('width_px').notNull(),
  heightPx: integer('height_px').notNull(),
  jpeg: bytes().notNull(),
});

/** Photos of a machine. */
export const modelPhotos = pgTable(
  'model_photos',
  {
    id: uuid().primaryKey(),
    modelId: text('model_id')
      .notNull()
      .references(() => models.id),
    ...picture(),
  },
  (t) => [index('model_photos_of').on(t.modelId, t.at)],
);

/** Exams that were taken in Practice, with what was done in them and what that was worth. */
export const exams = pgTable('exams', {
  id: uuid().primaryKey(),
  number: integer().notNull(),
  crewId: text('crew_id')
    .notNull()
    .references(() => crew.id),
  startedAt: instant('started_at').notNull(),
  endedAt: instant('ended_at').notNull(),
  isInTime: boolean('is_in_time').notNull(),
  runs: jsonb().$type<readonly ExamRun[]>().notNull(),
  marks: jsonb().$type<ExamMarks>().notNull(),
  signedBy: text('signed_by').references(() => crew.id),
  signedAt: instant('signed_at'),
});

/** Ends of shifts, each with what it left as it stood then. */
export const shiftEnds = pgTable('shift_ends', {
  id: uuid().primaryKey(),
  givenBy: text('given_by')
    .notNull()
    .references(() => crew.id),
  givenAt: instant('given_at').notNull(),
  note: text().notNull(),
  takenBy: text('taken_by').references(() => crew.id),
  takenAt: instant('taken_at'),
  left: jsonb().$type<ShiftLeft>().notNull(),
});

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

export const vans = pgTable('vans', {
  id: text().primaryKey(),
  name: text().notNull(),
  /** On the road no longer; logs still name it. */
  retiredAt: instant('retired_at'),
});

export const kitItems = pgTable('kit_items', {
  id: text().primaryKey(),
  vanId: text('van_id')
    .notNull()
    .references(() => vans.id),
  position: integer().notNull(),
  detail: jsonb().$type<KitItem>().notNull(),
  /** Carried no longer; logs still name it. */
  retiredAt: instant('retired_at'),
});

/** Charge that a job took out of a piece of kit, as computed from its log: taken back when the log is. */
export const kitUses = pgTable(
  'kit_uses',
  {
    kitItemId: text('kit_item_id')
      .notNull()
      .references(() => kitItems.id),
    jobId: uuid('job_id').notNull(),
    /** Share of what it holds, 0 to 1. */
    share: doublePrecision().notNull(),
    at: instant('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.kitItemId, t.jobId] })],
);

/** One machine of somebody's. */
export const vehicles = pgTable(
  'vehicles',
  {
    id: text().primaryKey(),
    plate: text(),
    /** The plate without blanks and marks, in capitals: what plates are compared by. */
    plateKey: text('plate_key'),
    fleetNumber: text('fleet_number'),
    serialNumber: text('serial_number'),
    modelId: text('model_id')
      .notNull()
      .references(() => models.id),
    ownerId: uuid('owner_id').references(() => people.id),
    notes: text().notNull().default(''),
    createdAt: instant('created_at').notNull(),
    revision: integer().notNull().default(1),
    searchText: text('search_text').notNull(),
  },
  (t) => [
    index('vehicles_by_text').using('gin', t.searchText.op('gin_trgm_ops')),
    index('vehicles_by_plate').on(t.plateKey),
    index('vehicles_by_model').on(t.modelId),
  ],
);

/** One battery, wherever it is. Where it stands follows from its moves. */
export const batteries = pgTable(
  'batteries',
  {
    id: uuid().primaryKey(),
    /** Short, to be typed from its label. */
    code: text().notNull().unique(),
    rating: jsonb().$type<BatteryRating>().notNull(),
    /** As stamped on it. */
    dateMark: text('date_mark'),
    state: text().$type<BatteryState>().notNull(),
    vehicleId: text('vehicle_id').references(() => vehicles.id),
    /** Counts from the chassis end, from 0. */
    place: integer(),
    vanId: text('van_id').references(() => vans.id),
    /** When it came to where it is. */
    since: instant('since').notNull(),
  },
  (t) => [index('batteries_in').on(t.vehicleId, t.place), index('batteries_on').on(t.vanId)],
);

/** Every time a battery changed its place or was charged at the depot: append-only, but for what an undone event of a job moved. */
export const batteryMoves = pgTable(
  'battery_moves',
  {
    position: serial().primaryKey(),
    batteryId: uuid('battery_id')
      .notNull()
      .references(() => batteries.id),
    kind: text().$type<BatteryMoveKind>().notNull(),
    at: instant('at').notNull(),
    by: text().notNull(),
    vehicleId: text('vehicle_id').references(() => vehicles.id),
    place: integer(),
    vanId: text('van_id').references(() => vans.id),
    note: text().notNull().default(''),
    jobId: uuid('job_id'),
    /** The event of the job that moved it. */
    eventId: uuid('event_id'),
  },
  (t) => [
    index('battery_moves_of').on(t.batteryId, t.position),
    index('battery_moves_in').on(t.vehicleId, t.place, t.position),
    index('battery_moves_by_event').on(t.eventId),
  ],
);

/** Entries of jobs on a battery. */
export const batteryEntries = pgTable(
  'battery_entries',
  {
    position: serial().primaryKey(),
    batteryId: uuid('battery_id')
      .notNull()
      .references(() => batteries.id),
    jobId: uuid('job_id').notNull(),
    place: integer().notNull(),
    at: instant('at').notNull(),
    kind: text().$type<BatteryEntry['kind']>().notNull(),
    volts: doublePrecision(),
    share: doublePrecision(),
    spread: doublePrecision(),
  },
  (t) => [index('battery_entries_of').on(t.batteryId, t.at), index('battery_entries_by_job').on(t.jobId)],
);

/** The care that kit needs after use. A mark stands until somebody says it is done. */
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

export const calls = pgTable(
  'calls',
  {
    id: text().primaryKey(),
    number: integer().notNull().unique(),
    receivedAt: instant('received_at').notNull(),
    title: text().notNull(),
    placeName: text('place_name').notNull(),
    said: text().notNull(),
    modelId: text('model_id')
      .notNull()
      .references(() => models.id),
    vehicleId: text('vehicle_id')
      .notNull()
      .references(() => vehicles.id),
    callerId: uuid('caller_id').references(() => people.id),
    ambientC: doublePrecision('ambient_c').notNull(),
    urgent: boolean().notNull(),
    state: text().$type<CallState>().notNull().default('waiting'),
    vanId: text('van_id').references(() => vans.id),
    technicianId: text('technician_id').references(() => crew.id),
    promisedAt: instant('promised_at'),
    /** When its job was closed, or it was called off. */
    endedAt: instant('ended_at'),
  },
  (t) => [index('calls_by_state').on(t.state, t.endedAt), index('calls_of_vehicle').on(t.vehicleId)],
);

/** Changes of a call: taken, passed on or called off, by whom, and why. */
export const callChanges = pgTable(
  'call_changes',
  {
    position: serial().primaryKey(),
    callId: text('call_id')
      .notNull()
      .references(() => calls.id),
    kind: text().$type<CallChangeKind>().notNull(),
    at: instant('at').notNull(),
    by: text().notNull(),
    vanId: text('van_id'),
    technicianId: text('technician_id'),
    reason: text().notNull(),
  },
  (t) => [index('call_changes_of').on(t.callId, t.position)],
);

/** The content of each job's log, kept beside it for search. Always made from the log, in the same transaction. */
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
    vehicleId: text('vehicle_id')
      .notNull()
      .references(() => vehicles.id),
    vanId: text('van_id').notNull(),
    stage: text().$type<Stage>().notNull(),
    state: text().$type<'open' | 'closed'>().notNull(),
    verdict: text().$type<VerdictKind>(),
    suspect: text().$type<Suspect>(),
    lowestRestVolts: doublePrecision('lowest_rest_volts'),
    /** When what is on a charger now is due; null while nothing is. */
    chargeUntil: instant('charge_until'),
    openedAt: instant('opened_at').notNull(),
    closedAt: instant('closed_at'),
    by: text().notNull(),
    machineClass: text('machine_class').$type<MachineClass>().notNull().default('car'),
    arrivedAt: instant('arrived_at'),
    minutesToRunning: doublePrecision('minutes_to_running'),
    startedBy: text('started_by').$type<StartedBy>(),
    batteriesFitted: integer('batteries_fitted').notNull().default(0),
    wasCharged: boolean('was_charged').notNull().default(false),
    helpedTries: jsonb('helped_tries').$type<JobOutcome['helpedTries']>().notNull().default([]),
    overridden: jsonb().$type<JobOutcome['overridden']>().notNull().default([]),
    revision: integer().notNull(),
    searchText: text('search_text').notNull(),
    /** The fold of the log as it stands; null where it was written before snapshots were kept and is yet to be made. */
    snapshot: jsonb().$type<Job>(),
    /** The `FOLD_VERSION` that made the snapshot. */
    snapshotVersion: integer('snapshot_version').notNull().default(0),
  },
  (t) => [
    // The order is asked for as it is kept, nulls included: else the index cannot serve it.
    index('jobs_by_closing').on(t.state, t.closedAt.desc().nullsLast(), t.id),
    index('jobs_by_model').on(t.modelId, t.openedAt),
    index('jobs_by_vehicle').on(t.vehicleId, t.openedAt),
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
    /** By the reporter's clock. */
    at: instant('at').notNull(),
    /** By this server's clock; null in older logs. */
    heardAt: instant('heard_at'),
    by: text()
      .notNull()
      .references(() => crew.id),
    /** The holder of the device when it was sent, where that was somebody else; null otherwise. */
    sentBy: text('sent_by').references(() => crew.id),
    type: text().$type<EventType>().notNull(),
    data: jsonb().$type<JobEvent['data']>().notNull(),
  },
  (t) => [uniqueIndex('job_events_in_order').on(t.jobId, t.position)],
);

/** Photos of jobs. The log has their captions. */
export const jobPhotos = pgTable(
  'job_photos',
  {
    id: uuid().primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id),
    ...picture(),
  },
  (t) => [index('job_photos_of').on(t.jobId)],
);

/** Promises of the verdicts of closed jobs, by day. Made from the log in the same transaction. */
export const followUps = pgTable(
  'follow_ups',
  {
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id),
    kind: text().$type<FollowUp['kind']>().notNull(),
    dueOn: date('due_on', { mode: 'string' }).notNull(),
    done: boolean().notNull(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.kind] }), index('follow_ups_due').on(t.done, t.dueOn)],
);
