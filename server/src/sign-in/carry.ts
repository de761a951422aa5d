import { asc } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { insertAll } from '../db/many-rows.js';
import { audit, crewSecrets, passkeys } from '../db/schema.js';
import { isSignInRequired, setSignInRule } from './secrets.js';

/**
 * Takes the sign-in data of a house along into another database that has its crew: PINs as their hashes, passkeys, what was done, and whether it is
 * shut. It goes from database to database alone: no file of a house holds what opens it. Whoever is signed in signs in anew.
 */
export async function carrySignIn(from: Db, to: Tx): Promise<void> {
  await insertAll(to, crewSecrets, await from.select().from(crewSecrets));
  await insertAll(to, passkeys, await from.select().from(passkeys));
  const done = await from.select().from(audit).orderBy(asc(audit.position));
  await insertAll(
    to,
    audit,
    done.map(({ position: _counted, ...line }) => line),
  );
  await setSignInRule(to, await isSignInRequired(from));
}
