import { asc } from 'drizzle-orm';
import type { Db, Tx } from '../db/database.js';
import { audit, crewSecrets, passkeys } from '../db/schema.js';
import { isDoorShut, setDoor } from './secrets.js';

/**
 * Takes the door of a house along into another database that has its crew: PINs as their hashes, passkeys, what was done, and whether it is
 * shut. It goes from database to database alone: no file of a house holds what opens it. Whoever is signed in signs in anew.
 *
 * @returns how many PINs and passkeys there are
 */
export async function carryDoor(
  from: Db,
  to: Tx,
): Promise<{ readonly pins: number; readonly passkeys: number }> {
  const pins = await from.select().from(crewSecrets);
  const keys = await from.select().from(passkeys);
  const done = await from.select().from(audit).orderBy(asc(audit.position));
  if (pins.length > 0) await to.insert(crewSecrets).values(pins);
  if (keys.length > 0) await to.insert(passkeys).values(keys);
  for (let i = 0; i < done.length; i += LINES_AT_ONCE)
    await to
      .insert(audit)
      .values(done.slice(i, i + LINES_AT_ONCE).map(({ position: _counted, ...line }) => line));
  await setDoor(to, await isDoorShut(from));
  return { pins: pins.length, passkeys: keys.length };
}
const LINES_AT_ONCE = 500;
