import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { CrewRole, DeviceSession } from '@voltrek/contracts';
import { DAY_MS, HOUR_MS, MINUTE_MS } from '@voltrek/core/quantities';
import { and, desc, eq, gt, inArray, isNull, ne, type SQL } from 'drizzle-orm';
import type { Request, Response } from 'express';
import type { Db, Tx } from '../db/database.js';
import { crew, sessions } from '../db/schema.js';

/** A device that nobody touched for two shifts is anybody's; and once a month everybody shows again who they are. */
const IDLE_MS = 16 * HOUR_MS;
const LONGEST_MS = 30 * DAY_MS;
/** How closely it is kept when somebody was last seen. */
const SEEN_MS = 10 * MINUTE_MS;
const COOKIE = 'voltrek_device';
const COOKIE_MS = 400 * DAY_MS;
const TOKEN_BYTES = 32;
const DEVICE_TEXT_MOST = 120;

/** Somebody whose taps a device may send. */
export interface SignedIn {
  readonly sessionId: string;
  readonly crewId: string;
  readonly role: CrewRole;
  /** Holds the device now; the others handed it over. */
  readonly holds: boolean;
  /** When it was handed over; null while it is held. */
  readonly handedOverAt: Date | null;
}

/** The device that a request comes from, as the hash of its token; null for one that never signed in. */
export function deviceOf(request: Request): string | null {
  const token = (request.cookies as Readonly<Record<string, unknown>> | undefined)?.[COOKIE];
  return typeof token === 'string' && token.length === 43 ? hashOf(token) : null;
}

/** The same, and where there is none the answer gives it one. */
export const deviceFor = (request: Request, response: Response): string =>
  deviceOf(request) ?? newDevice(request, response);

/** Gives a device a token of its own. Scripts cannot read it, and pages of others do not send it. */
export function newDevice(request: Request, response: Response): string {
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  response.cookie(COOKIE, token, {
    ...{ httpOnly: true, sameSite: 'strict', path: '/', maxAge: COOKIE_MS },
    secure: request.secure,
  });
  return hashOf(token);
}

/** Takes everybody who is in on a device along to its new token: one that was copied before is worth nothing from then on. */
export async function moveDevice(tx: Tx, from: string | null, to: string): Promise<void> {
  if (from !== null) await tx.update(sessions).set({ deviceHash: to }).where(eq(sessions.deviceHash, from));
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('base64url');

const isLive = (now: number): SQL =>
  and(
    isNull(sessions.endedAt),
    isNull(crew.retiredAt),
    gt(sessions.seenAt, new Date(now - IDLE_MS)),
    gt(sessions.createdAt, new Date(now - LONGEST_MS)),
  )!;

/** Returns the people who are signed in on a device. */
export async function signedInOn(db: Db, deviceHash: string | null): Promise<SignedIn[]> {
  if (deviceHash === null) return [];
  const now = Date.now();
  const rows = await db
    .select({ session: sessions, role: crew.role })
    .from(sessions)
    .innerJoin(crew, eq(crew.id, sessions.crewId))
    .where(and(eq(sessions.deviceHash, deviceHash), isLive(now)));
  const stale = rows
    .filter(({ session }) => now - session.seenAt.getTime() > SEEN_MS)
    .map((r) => r.session.id);
  if (stale.length > 0)
    await db
      .update(sessions)
      .set({ seenAt: new Date(now) })
      .where(inArray(sessions.id, stale));
  return rows.map(({ session: { id, crewId, handedOverAt }, role }) => ({
    ...{ sessionId: id, crewId, role, handedOverAt },
    holds: handedOverAt === null,
  }));
}

/** Returns the holder of the device. */
export const holderIn = (here: readonly SignedIn[]): SignedIn | undefined => here.find(({ holds }) => holds);

/** Whether somebody ever signed in on a device: only then does it get the names of the crew. */
export async function isDeviceKnown(db: Db, deviceHash: string | null): Promise<boolean> {
  if (deviceHash === null) return false;
  const [row] = await db
    .select({ id: sessions.id })
    .from(sessions)
    .where(eq(sessions.deviceHash, deviceHash))
    .limit(1);
  return row !== undefined;
}

/** Somebody takes a device; whoever held it handed it over. */
export async function takeDevice(tx: Tx, deviceHash: string, crewId: string, device: string): Promise<void> {
  const at = new Date();
  await tx
    .update(sessions)
    .set({ handedOverAt: at })
    .where(
      and(eq(sessions.deviceHash, deviceHash), ne(sessions.crewId, crewId), isNull(sessions.handedOverAt)),
    );
  const row = {
    device: device.slice(0, DEVICE_TEXT_MOST),
    createdAt: at,
    seenAt: at,
    handedOverAt: null,
    endedAt: null,
  };
  await tx
    .insert(sessions)
    .values({ id: randomUUID(), deviceHash, crewId, ...row })
    .onConflictDoUpdate({ target: [sessions.deviceHash, sessions.crewId], set: row });
}

/** @returns whose sessions they were */
export async function endSessions(
  tx: Tx,
  which: { readonly id: string } | { readonly crewId: string },
): Promise<string[]> {
  const isMeant = 'id' in which ? eq(sessions.id, which.id) : eq(sessions.crewId, which.crewId);
  const ended = await tx
    .update(sessions)
    .set({ endedAt: new Date() })
    .where(and(isMeant, isNull(sessions.endedAt)))
    .returning({ crewId: sessions.crewId });
  return ended.map(({ crewId }) => crewId);
}

/** @param crewId whose; null for everybody's */
export async function liveSessions(
  db: Db,
  crewId: string | null,
  here: string | null,
): Promise<DeviceSession[]> {
  const rows = await db
    .select({ session: sessions })
    .from(sessions)
    .innerJoin(crew, eq(crew.id, sessions.crewId))
    .where(and(isLive(Date.now()), crewId === null ? undefined : eq(sessions.crewId, crewId)))
    .orderBy(desc(sessions.seenAt));
  return rows.map(({ session }) => ({
    ...{ id: session.id, crewId: session.crewId, device: session.device },
    createdAt: session.createdAt.toISOString(),
    seenAt: session.seenAt.toISOString(),
    handedOverAt: session.handedOverAt?.toISOString() ?? null,
    isThisDevice: session.deviceHash === here,
  }));
}
