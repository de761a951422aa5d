import { randomUUID } from 'node:crypto';
import { searchTextOf } from '@voltrek/contracts/search-text';
import { eq, lt, sql } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { stagedModels } from '../db/schema.js';
import { turns } from '../files/found-row.js';
import type { ChangedEntry, ChangeNote } from './repository.js';

/** Entries that one statement stages: a tap does not feel to wait for them. */
const ROWS_AT_ONCE = 50;
/** An import that was cut short this long ago comes no more, ms. */
const LEFT_MS = 3_600_000;

/** Entries laid beside the atlas. */
export interface Staging {
  /** The name that they are staged under. */
  readonly batch: string;
  /** Lays more beside, some at a time, so that taps have their turn between. */
  readonly add: (entries: readonly ChangedEntry[]) => Promise<void>;
}

/** Begins to lay entries beside the atlas; `moveStaged` then takes them over in one go. */
export async function stagingOf(db: Db, at: Date): Promise<Staging> {
  await db.delete(stagedModels).where(lt(stagedModels.at, new Date(at.getTime() - LEFT_MS)));
  const batch = randomUUID();
  const turn = turns();
  let position = 0;
  const add = async (entries: readonly ChangedEntry[]): Promise<void> => {
    for (let from = 0; from < entries.length; from += ROWS_AT_ONCE) {
      const rows = entries.slice(from, from + ROWS_AT_ONCE).map(({ machine, revision }) => ({
        batch,
        position: position++,
        revision,
        search_text: searchTextOf(machine),
        detail: machine,
        at,
      }));
      // One value for all: a statement with a value for each field of each row takes four times as long.
      await db.execute(
        sql`INSERT INTO ${stagedModels} SELECT * FROM jsonb_populate_recordset(null::${stagedModels}, ${JSON.stringify(rows)}::jsonb)`,
      );
      await turn();
    }
  };
  return { batch, add };
}

/** Takes a batch over into the atlas, each entry with its change. Call inside a transaction. */
export async function moveStaged(tx: Tx, batch: string, { kind, by, at, note }: ChangeNote): Promise<void> {
  const staged = sql`FROM ${stagedModels} WHERE ${stagedModels.batch} = ${batch} ORDER BY ${stagedModels.position}`;
  await tx.execute(sql`
    INSERT INTO models (id, maker, model, machine_class, detail, confidence, revision, search_text)
    SELECT detail->>'id', detail->>'maker', detail->>'model', detail->>'machineClass', detail, 'found-once', revision, search_text
    ${staged}
    ON CONFLICT (id) DO UPDATE SET maker = excluded.maker, model = excluded.model, machine_class = excluded.machine_class,
      detail = excluded.detail, confidence = excluded.confidence, revision = excluded.revision, search_text = excluded.search_text`);
  await tx.execute(sql`
    INSERT INTO model_changes (model_id, revision, kind, "by", at, note, detail)
    SELECT detail->>'id', revision, ${kind}, ${by}, ${at.toISOString()}::timestamptz, ${note}, detail ${staged}`);
}

/** Clears a batch away, taken over or not. */
export async function dropStaged(db: Db, batch: string): Promise<void> {
  await db.delete(stagedModels).where(eq(stagedModels.batch, batch));
}
