import type { Passkey } from '@voltrek/contracts';
import { MINUTE_MS } from '@voltrek/core/quantities';
import {
  type AuthenticationResponseJSON,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import { and, asc, eq, gt, isNull } from 'drizzle-orm';
import type { Request } from 'express';
import type { Database, Db, Tx } from '../db/database.js';
import { crew, passkeyQuestions, passkeys } from '../db/schema.js';
import { HttpProblem } from '../http/problem.js';

/** A question is to be answered within this. */
const ANSWER_MS = 5 * MINUTE_MS;
const HOUSE_NAME = 'Voltrek';

/** The name that a browser binds a passkey to, and the origins it may come from: plain http only where a browser allows it, on its own machine. */
function placeOf(request: Request): { rpID: string; origins: string[] } {
  const host = request.get('host') ?? '';
  return { rpID: host.replace(/:\d*$/, '').toLowerCase(), origins: [`https://${host}`, `http://${host}`] };
}

async function keepQuestion(tx: Db | Tx, deviceHash: string, question: string): Promise<void> {
  const row = { question, until: new Date(Date.now() + ANSWER_MS) };
  await tx
    .insert(passkeyQuestions)
    .values({ deviceHash, ...row })
    .onConflictDoUpdate({ target: passkeyQuestions.deviceHash, set: row });
}

/** Returns the question that this device was asked; once. @throws HttpProblem 401 where nothing was, or too long ago */
async function takeQuestion(db: Db, deviceHash: string): Promise<string> {
  const [row] = await db
    .delete(passkeyQuestions)
    .where(and(eq(passkeyQuestions.deviceHash, deviceHash), gt(passkeyQuestions.until, new Date())))
    .returning();
  if (!row) throw new HttpProblem(401, 'passkeyWrong');
  return row.question;
}

/** Asks a device for any passkey of this house. */
export async function askForPasskey({ db }: Database, request: Request, deviceHash: string) {
  const { rpID } = placeOf(request);
  const options = await generateAuthenticationOptions({ rpID, userVerification: 'required' });
  await keepQuestion(db, deviceHash, options.challenge);
  return options;
}

/** Somebody at work who has shown that they hold a passkey of theirs. @throws HttpProblem 401 */
export async function provenByPasskey(
  { db }: Database,
  request: Request,
  deviceHash: string,
  answer: unknown,
): Promise<string> {
  const question = await takeQuestion(db, deviceHash);
  const { id } = answer as AuthenticationResponseJSON;
  const [kept] = await db
    .select({ key: passkeys })
    .from(passkeys)
    .innerJoin(crew, eq(crew.id, passkeys.crewId))
    .where(and(eq(passkeys.id, id), isNull(crew.retiredAt)));
  if (!kept) throw new HttpProblem(401, 'passkeyWrong');
  const { publicKey, counter, crewId } = kept.key;
  const { rpID, origins } = placeOf(request);
  const { verified, authenticationInfo } = await verifyAuthenticationResponse({
    response: answer as AuthenticationResponseJSON,
    expectedChallenge: question,
    expectedOrigin: origins,
    expectedRPID: rpID,
    credential: { id, publicKey: new Uint8Array(publicKey), counter },
  }).catch(() => ({ verified: false, authenticationInfo: null }));
  if (!verified || !authenticationInfo) throw new HttpProblem(401, 'passkeyWrong');
  await db
    .update(passkeys)
    .set({ counter: authenticationInfo.newCounter, usedAt: new Date() })
    .where(eq(passkeys.id, id));
  return crewId;
}

/** Asks a device to make a passkey for somebody. */
export async function askForNewPasskey(
  { db }: Database,
  request: Request,
  deviceHash: string,
  crewId: string,
) {
  const [member] = await db.select().from(crew).where(eq(crew.id, crewId));
  const known = await passkeysOf(db, crewId);
  const options = await generateRegistrationOptions({
    rpName: HOUSE_NAME,
    rpID: placeOf(request).rpID,
    userID: new TextEncoder().encode(crewId),
    userName: member?.name ?? crewId,
    excludeCredentials: known.map(({ id }) => ({ id })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  await keepQuestion(db, deviceHash, options.challenge);
  return options;
}

/** Keeps a passkey that a device made. @throws HttpProblem 401 for one that does not answer what was asked */
export async function addPasskey(
  { db }: Database,
  request: Request,
  deviceHash: string,
  { crewId, name, answer }: { readonly crewId: string; readonly name: string; readonly answer: unknown },
): Promise<void> {
  const question = await takeQuestion(db, deviceHash);
  const { rpID, origins } = placeOf(request);
  const made = await verifyRegistrationResponse({
    response: answer as RegistrationResponseJSON,
    expectedChallenge: question,
    expectedOrigin: origins,
    expectedRPID: rpID,
  }).catch(() => null);
  if (!made?.verified) throw new HttpProblem(401, 'passkeyWrong');
  const { id, publicKey, counter } = made.registrationInfo.credential;
  await db.insert(passkeys).values({ id, crewId, name, publicKey, counter, createdAt: new Date() });
}

/** @param crewId whose; null for everybody's */
export async function passkeysOf(db: Db, crewId: string | null): Promise<Passkey[]> {
  const rows = await db
    .select()
    .from(passkeys)
    .where(crewId === null ? undefined : eq(passkeys.crewId, crewId))
    .orderBy(asc(passkeys.createdAt));
  return rows.map(({ id, crewId: whose, name, createdAt, usedAt }) => ({
    ...{ id, crewId: whose, name },
    createdAt: createdAt.toISOString(),
    usedAt: usedAt?.toISOString() ?? null,
  }));
}
