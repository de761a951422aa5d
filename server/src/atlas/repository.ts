import { machineSummary, searchTextOf, wordsOf } from '@voltrek/contracts/search-text';
import type { AtlasEntry, ChangeKind, Confidence, MachineSearch, MachineSummary } from '@voltrek/contracts';
import { type Machine, MACHINE_CLASSES } from '@voltrek/core/machine';
import { templateId } from '@voltrek/core/template';
import type { KitItem } from '@voltrek/core/sources';
import { and, asc, count, desc, eq, inArray, like, max, notInArray, type SQL, sql } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { modelChanges, modelPhotos, models } from '../db/schema.js';
import { insertAll, upsert } from '../db/many-rows.js';
import { plainLike } from '../db/words.js';
import { notFound } from '../http/problem.js';

const TEMPLATE_IDS = MACHINE_CLASSES.map(templateId);
/** Words shorter than this have too few letters to be misspelt usefully: they must stand as typed. */
const FUZZY_FROM_LETTERS = 4;
const WORDS_MOST = 8;
const SCORED_MOST = 400;
const ALL = 1_000_000;

const shown = {
  maker: models.maker,
  model: models.model,
  confidence: models.confidence,
  detail: models.detail,
};

/**
 * Machines by anything typed: every word must stand in an entry, or, where it stands in none, be nearly one of its words. Nearest first.
 * Entries that stand for a whole class are found only by name.
 */
export async function searchMachines(db: Db, typed: string, limit: number): Promise<MachineSearch> {
  const words = wordsOf(typed, WORDS_MOST);
  const wrong: string[] = [];
  const conditions: SQL[] = [];
  for (const word of words) {
    const isKnown = word.length < FUZZY_FROM_LETTERS || (await standsAnywhere(db, word));
    if (!isKnown) wrong.push(word);
    // The operator, not the function, so that the index serves it.
    conditions.push(isKnown ? stands(word) : sql`${word} <% ${models.searchText}`);
  }
  const isReal = notInArray(models.id, TEMPLATE_IDS);
  const likeness =
    wrong.length > 0
      ? sql.join(
          wrong.map((word) => sql`word_similarity(${word}, ${models.searchText})`),
          sql` + `,
        )
      : sql`0`;
  // Scoring is the dear part: a misspelling that half the atlas answers to is scored on its first answers only.
  const near = db
    .select({ ...shown, likeness: likeness.as('likeness') })
    .from(models)
    .where(and(...conditions, ...(words.length === 0 ? [isReal] : [])))
    .limit(wrong.length > 0 ? SCORED_MOST : ALL)
    .as('near');
  const rows = await db
    .select()
    .from(near)
    .orderBy(desc(near.likeness), asc(near.maker), asc(near.model))
    .limit(limit);
  const [total] = await db.select({ n: count() }).from(models).where(isReal);
  return {
    machines: rows.map(({ detail, confidence }) => machineSummary(detail, confidence)),
    total: total?.n ?? 0,
  };
}

/** A word as it stands: a short one only at the beginning of a word, since anywhere else it would be found in everything. */
function stands(word: string): SQL {
  const plain = plainLike(word);
  return like(models.searchText, word.length < FUZZY_FROM_LETTERS ? `% ${plain}%` : `%${plain}%`);
}

async function standsAnywhere(db: Db, word: string): Promise<boolean> {
  return (await db.select({ id: models.id }).from(models).where(stands(word)).limit(1)).length > 0;
}

export async function modelById(db: Db | Tx, id: string): Promise<Machine | null> {
  const [row] = await db.select().from(models).where(eq(models.id, id));
  return row?.detail ?? null;
}

/** The same, where there must be one. @throws HttpProblem 404 */
export async function requireModel(db: Db | Tx, id: string): Promise<Machine> {
  const model = await modelById(db, id);
  if (!model) throw notFound('machine', id);
  return model;
}

/** An entry as a list shows it. */
export async function modelSummary(db: Db | Tx, id: string): Promise<MachineSummary | null> {
  const [row] = await db.select(shown).from(models).where(eq(models.id, id));
  return row ? machineSummary(row.detail, row.confidence) : null;
}

const PAGE = 100;

/** Every machine but those that stand for a class, by maker and model, a page at a time. */
export async function* allMachines(db: Db | Tx): AsyncGenerator<Machine> {
  const place = sql`(${models.maker}, ${models.model}, ${models.id})`;
  let last: Machine | undefined;
  do {
    const behind = last && sql`${place} > (${last.maker}, ${last.model}, ${last.id})`;
    const page = await db
      .select({ detail: models.detail })
      .from(models)
      .where(and(notInArray(models.id, TEMPLATE_IDS), behind))
      .orderBy(asc(models.maker), asc(models.model), asc(models.id))
      .limit(PAGE);
    yield* page.map(({ detail }) => detail);
    last = page.length === PAGE ? page.at(-1)!.detail : undefined;
  } while (last);
}

/** Returns these entries by id, as far as they stand; machines of a class too. */
export async function entriesByIds(db: Db | Tx, ids: readonly string[]): Promise<Map<string, ChangedEntry>> {
  const rows = await db
    .select({ machine: models.detail, revision: models.revision })
    .from(models)
    .where(inArray(models.id, [...ids]));
  return new Map(rows.map((row) => [row.machine.id, row]));
}

/** The atlas entry of the kit's donor vehicle; null when the kit has none. */
export async function donorOf(db: Db | Tx, kit: readonly KitItem[]): Promise<Machine | null> {
  const donor = kit.find((item) => item.kind === 'donor');
  return donor ? modelById(db, donor.modelId) : null;
}

/** An entry with its history, newest first, and its photos. */
export async function entryById(db: Db | Tx, id: string): Promise<AtlasEntry | null> {
  const [row] = await db.select().from(models).where(eq(models.id, id));
  if (!row) return null;
  const history = await db
    .select()
    .from(modelChanges)
    .where(eq(modelChanges.modelId, id))
    .orderBy(desc(modelChanges.revision));
  const photos = await db
    .select({
      id: modelPhotos.id,
      by: modelPhotos.by,
      at: modelPhotos.at,
      widthPx: modelPhotos.widthPx,
      heightPx: modelPhotos.heightPx,
    })
    .from(modelPhotos)
    .where(eq(modelPhotos.modelId, id))
    .orderBy(asc(modelPhotos.at));
  return {
    machine: row.detail,
    confidence: row.confidence,
    revision: row.revision,
    history: history.map(({ revision, kind, by, at, note }) => ({
      revision,
      kind,
      by,
      at: at.toISOString(),
      note,
    })),
    photos: photos.map((photo) => ({ ...photo, at: photo.at.toISOString() })),
  };
}

/** The changes of an entry: by whom, how and why. */
export interface ChangeNote {
  readonly kind: ChangeKind;
  readonly by: string;
  readonly at: Date;
  readonly note: string;
}

/** An entry as a change leaves it. */
export interface ChangedEntry {
  readonly machine: Machine;
  readonly revision: number;
}

/** Writes entries, new or changed, each with its change. Call inside a transaction. */
export async function writeMachines(
  tx: Tx,
  entries: readonly ChangedEntry[],
  confidence: Confidence,
  change: ChangeNote,
): Promise<void> {
  const rows = entries.map(({ machine, revision }) => {
    const { id, maker, model, machineClass } = machine;
    const searchText = searchTextOf(machine);
    return { id, maker, model, machineClass, detail: machine, confidence, revision, searchText };
  });
  await upsert(tx, models, models.id, rows);
  const changes = rows.map(({ id: modelId, revision, detail }) => ({ modelId, revision, detail, ...change }));
  await insertAll(tx, modelChanges, changes);
}

/** Notes a change that leaves the entry's content as it was. Call inside a transaction. */
export async function noteChange(
  tx: Tx,
  id: string,
  confidence: Confidence,
  revision: number,
  change: ChangeNote,
): Promise<void> {
  await tx.update(models).set({ confidence, revision }).where(eq(models.id, id));
  await tx.insert(modelChanges).values({ modelId: id, revision, detail: null, ...change });
}

/** Counts every change of the atlas: an import names the count that it was shown. */
export async function atlasBasis(db: Db | Tx): Promise<number> {
  const [row] = await db.select({ last: max(modelChanges.position) }).from(modelChanges);
  return row?.last ?? 0;
}

export type PhotoRow = typeof modelPhotos.$inferInsert;

export async function addPhoto(tx: Tx, photo: PhotoRow): Promise<void> {
  await tx.insert(modelPhotos).values(photo);
}

export async function photoById(db: Db, modelId: string, photoId: string): Promise<Uint8Array | null> {
  const [row] = await db
    .select({ jpeg: modelPhotos.jpeg })
    .from(modelPhotos)
    .where(and(eq(modelPhotos.modelId, modelId), eq(modelPhotos.id, photoId)));
  return row?.jpeg ?? null;
}
