import { randomUUID } from 'node:crypto';
import pg from 'pg';
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
