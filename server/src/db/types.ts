import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import type * as schema from './schema.js';

export type Db = NodePgDatabase<typeof schema>;
/** The same calls inside a transaction. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];
