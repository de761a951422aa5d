import { getTableColumns } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import * as schema from '../db/schema.js';

/** A table that goes into a file of the whole house. */
export interface HouseTable {
  readonly name: string;
  readonly table: PgTable;
  /** Columns that rows are put in order by, and identified by. */
  readonly key: readonly string[];
  /** True where the key is counted by the database, and given anew on the way in. */
  readonly isCounted: boolean;
}

const of = (name: string, table: PgTable, ...key: string[]): HouseTable => ({
  name,
  table,
  key: key.length > 0 ? key : ['id'],
  isCounted: false,
});
const counted = (name: string, table: PgTable): HouseTable => ({
  ...of(name, table, 'position'),
  isCounted: true,
});

/**
 * The tables of a house, each behind those that it names. Lists and records that are made from the logs are left out: they are
 * made again from them.
 */
export const HOUSE_TABLES: readonly HouseTable[] = [
  of('crew', schema.crew),
  of('people', schema.people),
  of('models', schema.models),
  counted('model_changes', schema.modelChanges),
  of('model_photos', schema.modelPhotos),
  counted('rule_settings', schema.ruleSettings),
  of('exams', schema.exams),
  of('shift_ends', schema.shiftEnds),
  of('vans', schema.vans),
  of('kit_items', schema.kitItems),
  of('vehicles', schema.vehicles),
  of('batteries', schema.batteries),
  counted('battery_moves', schema.batteryMoves),
  of('calls', schema.calls),
  counted('call_changes', schema.callChanges),
  of('jobs', schema.jobs),
  of('job_events', schema.jobEvents, 'jobId', 'position'),
  of('job_photos', schema.jobPhotos),
  of('kit_marks', schema.kitMarks),
  of('kit_uses', schema.kitUses, 'kitItemId', 'jobId'),
];

/** Columns that are made from the logs, or counted by the database. */
const MADE: Readonly<Record<string, readonly string[]>> = {
  jobs: [
    ...['snapshot', 'snapshotVersion', 'searchText', 'machineClass', 'arrivedAt', 'minutesToRunning'],
    ...['startedBy', 'batteriesFitted', 'wasCharged', 'helpedTries', 'overridden'],
  ],
};

/** The columns of a table that a file holds. */
export function fileColumns({ name, table, key, isCounted }: HouseTable): string[] {
  return Object.keys(getTableColumns(table)).filter(
    (column) => !(isCounted && key.includes(column)) && !(MADE[name] ?? []).includes(column),
  );
}

type Row = Readonly<Record<string, unknown>>;

/** A row as a file has it: moments as ISO 8601, bytes in base 64. */
export function rowToFile(table: HouseTable, row: Row): Row {
  return Object.fromEntries(
    fileColumns(table).map((column) => {
      const value = row[column];
      return [
        column,
        value instanceof Date
          ? value.toISOString()
          : value instanceof Uint8Array
            ? Buffer.from(value).toString('base64')
            : value,
      ];
    }),
  );
}

/** The way back. @throws RangeError for a column that is not known, missing, or a moment that is none */
export function rowFromFile(table: HouseTable, row: Row): Row {
  const names = fileColumns(table);
  const columns = getTableColumns(table.table);
  const unknown = Object.keys(row).find((key) => !names.includes(key));
  if (unknown !== undefined) throw new RangeError(`${unknown} is no field of it`);
  return Object.fromEntries(
    names.map((column) => {
      const value = row[column];
      const { dataType, notNull, hasDefault } = columns[column]!;
      if (value === undefined || value === null) {
        if (notNull && !hasDefault) throw new RangeError(`${column} is missing`);
        return [column, null];
      }
      if (dataType === 'date') return [column, momentOf(column, value)];
      if (dataType === 'custom') return [column, new Uint8Array(Buffer.from(value as string, 'base64'))];
      return [column, value];
    }),
  );
}

function momentOf(column: string, value: unknown): Date {
  const moment = new Date(typeof value === 'string' ? value : NaN);
  if (Number.isNaN(moment.getTime())) throw new RangeError(`${column} is no moment`);
  return moment;
}
