import { MINUTE_MS } from '@voltrek/core/quantities';
import { and, eq, isNull, ne, sql } from 'drizzle-orm';
import type { Database, Db, Tx } from '../db/database.js';
import { crew, crewSecrets, facts } from '../db/schema.js';
import { HttpProblem } from '../http/problem.js';
import { note } from './audit.js';
import { isPin } from './pin.js';

/** After so many wrong PINs the next is refused for a minute, then for two, four, up to an hour. */
const WRONG_MOST = 5;
const LOCK_MOST_MINUTES = 60;
/** So many names that nobody has are remembered. */
const STRANGERS_MOST = 1_000;
const SIGN_IN = 'sign-in';

/** Whether this house lets in only whoever signed in. */
export async function isSignInRequired(db: Db | Tx): Promise<boolean> {
  const [row] = await db.select().from(facts).where(eq(facts.key, SIGN_IN));
  return row?.value === 'required';
}

export async function setSignInRule(tx: Tx, isShut: boolean): Promise<void> {
  const value = isShut ? 'required' : 'open';
  await tx
    .insert(facts)
    .values({ key: SIGN_IN, value })
    .onConflictDoUpdate({ target: facts.key, set: { value } });
}

/** Everybody at work, and whether they have a PIN. */
export async function whoHasPins(db: Db | Tx) {
  return db
    .select({
      id: crew.id,
      name: crew.name,
      hasPin: sql<boolean>`${crewSecrets.crewId} is not null`,
      lockedUntil: crewSecrets.lockedUntil,
    })
    .from(crew)
    .leftJoin(crewSecrets, eq(crewSecrets.crewId, crew.id))
    .where(isNull(crew.retiredAt))
    .orderBy(crew.id);
}

export async function hasPin(db: Db | Tx, crewId: string): Promise<boolean> {
  const [row] = await db
    .select({ id: crewSecrets.crewId })
    .from(crewSecrets)
    .where(eq(crewSecrets.crewId, crewId));
  return row !== undefined;
}

/** @param pinHash as `hashOfPin` makes it, before the transaction: it takes its time */
export async function setPin(tx: Tx, crewId: string, pinHash: string): Promise<void> {
  const row = { pinHash, failures: 0, lockedUntil: null, setAt: new Date() };
  await tx
    .insert(crewSecrets)
    .values({ crewId, ...row })
    .onConflictDoUpdate({ target: crewSecrets.crewId, set: row });
}

/**
 * Somebody at work who has shown that they know their PIN.
 *
 * @param named an id, or a name as it stands in the crew
 * @returns their id
 * @throws HttpProblem 401 for whoever is not known, has no PIN or mistyped it, all alike; 429 while they are locked out
 */
export async function provenByPin({ db, write }: Database, named: string, pin: string): Promise<string> {
  const [found] = await db
    .select({ id: crew.id, secret: crewSecrets })
    .from(crew)
    .leftJoin(crewSecrets, eq(crewSecrets.crewId, crew.id))
    .where(and(isNull(crew.retiredAt), sql`(${crew.id} = ${named} or lower(${crew.name}) = lower(${named}))`))
    .orderBy(sql`${crew.id} <> ${named}`)
    .limit(1);
  const secret = found?.secret ?? null;
  // Counted before it is judged: of many tries at one moment no more are judged than of many in a row.
  if (!found || !secret) {
    const until = strangers.lockedUntil(named);
    if (until && until > new Date()) throw lockedOut(until);
    const locked = strangers.countTry(named);
    await isPin(pin, null);
    throw locked ? lockedOut(locked) : new HttpProblem(401, 'pinWrong');
  }
  const lockedUntil = await write((tx) => countTry(tx, found.id));
  if (!(await isPin(pin, secret.pinHash))) {
    await write((tx) => note(tx, null, lockedUntil ? 'locked-out' : 'pin-wrong', found.id));
    throw lockedUntil ? lockedOut(lockedUntil) : new HttpProblem(401, 'pinWrong');
  }
  await write((tx) =>
    tx.update(crewSecrets).set({ failures: 0, lockedUntil: null }).where(eq(crewSecrets.crewId, found.id)),
  );
  return found.id;
}

/**
 * Counts a try before anybody knows whether it is right. Counted by the database, so that tries at the same moment are each counted.
 *
 * @returns until when nobody else is judged, should it be wrong; null for not yet
 * @throws HttpProblem 429 while that name is locked
 */
async function countTry(tx: Tx, crewId: string): Promise<Date | null> {
  const [row] = await tx.select().from(crewSecrets).where(eq(crewSecrets.crewId, crewId)).for('update');
  const { failures, lockedUntil: before } = row!;
  if (before && before > new Date()) throw lockedOut(before);
  const lockedUntil = lockAfter(failures + 1);
  await tx
    .update(crewSecrets)
    .set({ failures: failures + 1, lockedUntil })
    .where(eq(crewSecrets.crewId, crewId));
  return lockedUntil;
}

/** Until when a name is locked that was given so many wrong PINs; null for not yet. */
function lockAfter(failures: number): Date | null {
  const over = failures - WRONG_MOST;
  if (over < 0) return null;
  return new Date(Date.now() + Math.min(LOCK_MOST_MINUTES, 2 ** over) * MINUTE_MS);
}

/** Names that nobody has are locked like those that somebody does, or a lock would tell which there are. */
const strangers = (() => {
  const known = new Map<string, { readonly failures: number; readonly lockedUntil: Date | null }>();
  const keyOf = (named: string): string => named.toLowerCase();
  return {
    lockedUntil: (named: string): Date | null => known.get(keyOf(named))?.lockedUntil ?? null,
    countTry: (named: string): Date | null => {
      const failures = (known.get(keyOf(named))?.failures ?? 0) + 1;
      const lockedUntil = lockAfter(failures);
      // The oldest goes: whoever tries a thousand names has locked each for a minute at the most.
      if (known.size >= STRANGERS_MOST) known.delete([...known.keys()][0]!);
      known.set(keyOf(named), { failures, lockedUntil });
      return lockedUntil;
    },
  };
})();

const lockedOut = (until: Date): HttpProblem =>
  new HttpProblem(429, 'lockedOut', { params: [Math.ceil((until.getTime() - Date.now()) / MINUTE_MS)] });

/** With sign-in on, one lead must be able to switch it off. @throws HttpProblem 409 when no other lead with a PIN would be left */
export async function requireOtherLead(tx: Tx, crewId: string): Promise<void> {
  if (!(await isSignInRequired(tx))) return;
  const [other] = await tx
    .select({ id: crew.id })
    .from(crew)
    .innerJoin(crewSecrets, eq(crewSecrets.crewId, crew.id))
    .where(and(ne(crew.id, crewId), eq(crew.role, 'crew-lead'), isNull(crew.retiredAt)))
    .limit(1);
  if (!other) throw new HttpProblem(409, 'lastLead');
}
