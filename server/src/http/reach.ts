import { MINUTE_MS } from '@voltrek/core/quantities';
import { eq, like } from 'drizzle-orm';
import type { Request } from 'express';
import type { Database } from '../db/database.js';
import { facts } from '../db/schema.js';
import { isLoopback } from './same-site.js';

/** A server renews its mark of being reached from other machines this often. The mark holds so long after the last, ms. */
const RENEW_MS = MINUTE_MS;
const BELIEVED_MS = 5 * MINUTE_MS;
/** A server asks the database again after this time, ms: another server of the house may have become public. */
const LOOK_AGAIN_MS = 2_000;
/** Servers tell each other by facts under this key. They are no facts of the house. */
export const REACHED_KEY = 'reached from outside: ';

/** The one answer to whether other machines reach a house, by any of its servers and by any way. */
export interface Reach {
  readonly isPublic: () => Promise<boolean>;
  /** Notes a request that another machine sent: from then on the house is public. */
  readonly noteRequest: (request: Request) => Promise<void>;
  /** Takes this server's word back when it stops. */
  readonly stop: () => Promise<void>;
}

/** True for a request of this machine itself, that no proxy passed on. */
export const isLocal = (request: Request): boolean =>
  isLoopback(request.socket.remoteAddress ?? '') &&
  request.headers['x-forwarded-for'] === undefined &&
  request.headers.forwarded === undefined;

/**
 * Returns the one answer to whether a house is public. A server is reached from outside by its address, by its names, or by requests that a
 * proxy passes on. Servers on one database tell each other by it.
 *
 * @param server what this server calls itself beside others
 * @param isReached it listens to other machines, or answers for names beside this machine's own
 */
export async function reachOf({ db }: Database, server: string, isReached: boolean): Promise<Reach> {
  const key = `${REACHED_KEY}${server}`;
  let isOwn = isReached;
  let known: { readonly isPublic: Promise<boolean>; readonly at: number } | null = null;
  const tell = async (): Promise<void> => {
    const value = new Date().toISOString();
    await db.insert(facts).values({ key, value }).onConflictDoUpdate({ target: facts.key, set: { value } });
    known = null;
  };
  const forget = async (): Promise<void> => {
    await db.delete(facts).where(eq(facts.key, key));
  };
  if (isOwn) await tell();
  else await forget();
  const renewing = setInterval(() => {
    if (isOwn) tell().catch(() => undefined);
  }, RENEW_MS);
  renewing.unref();
  const look = async (): Promise<boolean> => {
    const rows = await db
      .select()
      .from(facts)
      .where(like(facts.key, `${REACHED_KEY}%`));
    return rows.some(({ value }) => Date.now() - Date.parse(value) < BELIEVED_MS);
  };
  return {
    isPublic: () => {
      if (isOwn) return Promise.resolve(true);
      if (!known || Date.now() - known.at > LOOK_AGAIN_MS) known = { isPublic: look(), at: Date.now() };
      known.isPublic.catch(() => (known = null));
      return known.isPublic;
    },
    noteRequest: async (request) => {
      if (isOwn || isLocal(request)) return;
      isOwn = true;
      await tell();
    },
    stop: async () => {
      clearInterval(renewing);
      if (isOwn) await forget().catch(() => undefined);
    },
  };
}
