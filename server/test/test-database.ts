import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { loadDemo } from '../src/demo/load.js';
import { type Database, openInMemory, SNAPSHOT } from '../src/db/database.js';
import { openPostgres } from '../src/db/postgres.js';

/** A PostgreSQL server for these tests; without one they run on the embedded database. */
export const TEST_SERVER = process.env.VOLTREK_TEST_PG ?? null;

/** The address of a database of its own on the test's PostgreSQL server. */
export async function newDatabaseUrl(): Promise<string> {
  if (TEST_SERVER === null) throw new Error('there is no PostgreSQL server for these tests');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const client = new pg.Client({ connectionString: TEST_SERVER });
  await client.connect();
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  return Object.assign(new URL(TEST_SERVER), { pathname: `/${name}` }).href;
}

/** A database with nothing in it, of the kind that these tests run on. */
export async function testDatabase(): Promise<Database> {
  return TEST_SERVER === null ? openInMemory(SNAPSHOT) : openPostgres(await newDatabaseUrl());
}

/** The moment the demo night is timed against in tests: two hours ago, so that its calls are on the board. */
export const DEMO_NOW = new Date(Date.now() - 7_200_000);

let packed: Promise<string> | undefined;

/** A database of its own with the demo in it. The demo is worked out once for the whole run and unpacked for the others. */
export async function demoDatabase(): Promise<Database> {
  if (TEST_SERVER === null) return openInMemory(await (packed ??= packDemo()));
  const database = await testDatabase();
  await loadDemo(database, DEMO_NOW, false);
  return database;
}

async function packDemo(): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'voltrek-demo-'));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  const database = await openInMemory(SNAPSHOT);
  await loadDemo(database, DEMO_NOW, false);
  const file = join(folder, 'demo.tar');
  await writeFile(file, Buffer.from(await (await database.client.dumpDataDir('none')).arrayBuffer()));
  await database.close();
  return file;
}
