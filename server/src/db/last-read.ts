import { type SQL, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import { LRUCache } from 'lru-cache';

/**
 * The version of a row: its last writer, and its place. Any change of it, also twice in one transaction, gives another; no two
 * rows that ever stood under one key share it.
 */
export const rowVersion = (table: PgTable): SQL<string> => sql`${table}.xmin::text || ${table}.ctid::text`;

/** Values that were read from the database. They are reused while the database says that they are unchanged. */
export class LastRead<T> {
  private readonly values: LRUCache<string, { readonly version: string; readonly value: T }>;

  /** @param most values that are remembered; the one used longest ago goes first */
  constructor(most: number) {
    this.values = new LRUCache({ max: most });
  }

  put(key: string, version: string, value: T): void {
    this.values.set(key, { version, value });
  }

  /**
   * The values of these keys.
   *
   * @param wanted the version of each key, as the database gave it in this transaction
   * @param read asked at most once, for those keys that are not known in their version; a key that it does not give has no value
   */
  async of(
    wanted: ReadonlyMap<string, string>,
    read: (keys: string[]) => Promise<Iterable<readonly [key: string, value: T]>>,
  ): Promise<ReadonlyMap<string, T>> {
    const found = new Map<string, T>();
    const missing: string[] = [];
    for (const [key, version] of wanted) {
      const known = this.values.get(key);
      if (known?.version === version) found.set(key, known.value);
      else missing.push(key);
    }
    if (missing.length > 0)
      for (const [key, value] of await read(missing)) {
        found.set(key, value);
        this.put(key, wanted.get(key)!, value);
      }
    return found;
  }
}
