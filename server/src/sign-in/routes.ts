import {
  parseConfirmation,
  parseSignInRuleChange,
  parseNewPasskey,
  parsePasskeySignIn,
  parsePinChange,
  parsePinSignIn,
  type SignInHouse,
  type SignInState,
  UUID_PATTERN,
} from '@voltrek/contracts';
import { eq } from 'drizzle-orm';
import { type Request, type Response, Router } from 'express';
import { allCrew, requireCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { passkeys, sessions } from '../db/schema.js';
import type { StreamHub } from '../http/stream-hub.js';
import type { Reach } from '../http/reach.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { newestNotes, note } from './audit.js';
import type { SignInRule } from './guard.js';
import { addPasskey, askForNewPasskey, askForPasskey, passkeysOf, provenByPasskey } from './passkeys.js';
import { hashOfPin } from './pin.js';
import { hasPin, provenByPin, setSignInRule, setPin, whoHasPins } from './secrets.js';
import {
  deviceFor,
  deviceOf,
  endSessions,
  holderIn,
  isDeviceKnown,
  liveSessions,
  moveDevice,
  newDevice,
  signedInOn,
  takeDevice,
} from './sessions.js';
import { serve } from '../http/serve.js';

export interface SignInParts {
  readonly database: Database;
  readonly rule: SignInRule;
  readonly hub: StreamHub;
  /** A house that other machines reach keeps sign-in on. */
  readonly reach: Reach;
}

/** Sign-in: who comes in on which device, with what they prove it, and who looks after that. */
export function signInRoutes({ database, rule, hub, reach }: SignInParts): Router {
  const { db, write } = database;
  const router = Router();

  const stateOn = async (deviceHash: string | null): Promise<SignInState> => {
    const required = await rule.isShut();
    const here = required ? await signedInOn(db, deviceHash) : [];
    const holder = holderIn(here) ?? null;
    const isKnown = required && (await isDeviceKnown(db, deviceHash));
    const names = isKnown ? await whoHasPins(db) : [];
    return {
      ...{ required, crewId: holder?.crewId ?? null, role: holder?.role ?? null },
      signedIn: here.map(({ crewId }) => crewId),
      names: names.map((one) => ({ id: one.id, name: one.name, hasPin: one.hasPin })),
    };
  };

  const letIn = async (request: Request, response: Response, crewId: string): Promise<void> => {
    const had = deviceOf(request);
    const deviceHash = newDevice(request, response);
    await write(async (tx) => {
      await moveDevice(tx, had, deviceHash);
      await takeDevice(tx, deviceHash, crewId, request.get('user-agent') ?? '');
      await note(tx, crewId, 'signed-in', crewId);
    });
    response.json(await stateOn(deviceHash));
  };

  /** The asker, with the right to see others: without sign-in, the name that the request gives. */
  const asker = async (
    deviceHash: string | null,
    by: string | null,
  ): Promise<{ crewId: string | null; isLead: boolean }> => {
    if (await rule.isShut()) {
      const holder = holderIn(await signedInOn(db, deviceHash))!;
      return { crewId: holder.crewId, isLead: holder.role === 'crew-lead' };
    }
    if (by !== null) await requireCrew(db, by);
    const member = (await allCrew(db)).find(({ id }) => id === by);
    return { crewId: by, isLead: by === null || member?.role === 'crew-lead' };
  };

  const houseFor = async (deviceHash: string | null, by: string | null): Promise<SignInHouse> => {
    const { crewId, isLead } = await asker(deviceHash, by);
    const whose = isLead ? null : crewId;
    const crewNow = await whoHasPins(db);
    return {
      required: await rule.isShut(),
      crew: crewNow
        .filter(({ id }) => isLead || id === crewId)
        .map(({ id, hasPin: has, lockedUntil }) => ({
          ...{ crewId: id, hasPin: has },
          lockedUntil: lockedUntil && lockedUntil > new Date() ? lockedUntil.toISOString() : null,
        })),
      passkeys: await passkeysOf(db, whose),
      sessions: await liveSessions(db, whose, deviceHash),
      audit: isLead ? await newestNotes(db) : [],
    };
  };

  serve(router, 'GET /api/sign-in', async (request, response) => {
    response.json(await stateOn(deviceOf(request)));
  });
  serve(router, 'POST /api/sign-in/pin', async (request, response) => {
    const { named, pin } = parsePinSignIn(request.body);
    await letIn(request, response, await provenByPin(database, named, pin));
  });
  serve(router, 'POST /api/sign-in/passkey-question', async (request, response) => {
    response.json(await askForPasskey(database, request, deviceFor(request, response)));
  });
  serve(router, 'POST /api/sign-in/passkey', async (request, response) => {
    const answer = parsePasskeySignIn(request.body);
    const deviceHash = deviceFor(request, response);
    await letIn(request, response, await provenByPasskey(database, request, deviceHash, answer));
  });
  serve(router, 'POST /api/sign-in/out', async (request, response) => {
    const had = deviceOf(request);
    for (const { sessionId, crewId } of await signedInOn(db, had))
      await write(async (tx) => {
        await endSessions(tx, { id: sessionId });
        await note(tx, crewId, 'signed-out', crewId);
      });
    const deviceHash = had && newDevice(request, response);
    if (deviceHash) await write((tx) => moveDevice(tx, had, deviceHash));
    response.json(await stateOn(deviceHash));
    hub.startOver();
  });

  serve(router, 'GET /api/sign-in/house', async (request, response) => {
    response.json(await houseFor(deviceOf(request), null));
  });
  serve(router, 'PUT /api/sign-in/door', async (request, response) => {
    const { by, required, pin } = parseSignInRuleChange(request.body);
    if (!required && (await reach.isPublic())) throw new HttpProblem(409, 'doorStaysShut');
    const crewId = await provenByPin(database, by, pin);
    if (!(await asker(deviceOf(request), crewId)).isLead) throw new HttpProblem(403, 'notYourRole');
    const had = deviceOf(request);
    const deviceHash = newDevice(request, response);
    await write(async (tx) => {
      await moveDevice(tx, had, deviceHash);
      await setSignInRule(tx, required);
      await note(tx, crewId, required ? 'sign-in-required' : 'sign-in-open', crewId);
      // The person who shuts it stands inside.
      if (required) await takeDevice(tx, deviceHash, crewId, request.get('user-agent') ?? '');
    });
    rule.look();
    response.json(await houseFor(deviceHash, crewId));
    hub.startOver();
  });
  serve(router, 'PUT /api/sign-in/pins/:crewId', async (request, response) => {
    const { by, pin, ownPin } = parsePinChange(request.body);
    const { crewId } = request.params;
    await requireCrew(db, crewId);
    const { isLead } = await asker(deviceOf(request), by);
    if (crewId !== by && !isLead) throw new HttpProblem(403, 'notYourRole');
    // A person who picks up an open device must not be able to change whose it is.
    if (await hasPin(db, by)) await provenByPin(database, by, ownPin ?? '');
    const pinHash = await hashOfPin(pin);
    await write(async (tx) => {
      await setPin(tx, crewId, pinHash);
      if (crewId !== by) await endSessions(tx, { crewId });
      await note(tx, by, 'pin-set', crewId);
    });
    response.json(await houseFor(deviceOf(request), by));
    if (crewId !== by) hub.startOver();
  });
  serve(router, 'POST /api/sign-in/passkeys/question', async (request, response) => {
    const { by } = parseConfirmation(request.body);
    await requireCrew(db, by);
    response.json(await askForNewPasskey(database, request, deviceFor(request, response), by));
  });
  serve(router, 'POST /api/sign-in/passkeys', async (request, response) => {
    const { by, name, answer } = parseNewPasskey(request.body);
    // A way in is made only by whoever came in: without sign-in, anybody could make one under any name.
    if (!(await rule.isShut())) throw new HttpProblem(409, 'passkeysNeedSignIn');
    await addPasskey(database, request, deviceFor(request, response), { crewId: by, name, answer });
    await note(db, by, 'passkey-added', by);
    response.status(201).json(await houseFor(deviceOf(request), by));
  });
  serve(router, 'DELETE /api/sign-in/passkeys/:passkeyId', async (request, response) => {
    const { crewId, isLead } = await asker(deviceOf(request), null);
    const [key] = await db.select().from(passkeys).where(eq(passkeys.id, request.params.passkeyId));
    if (!key || !(isLead || key.crewId === crewId)) throw notFound('passkey', request.params.passkeyId);
    await db.delete(passkeys).where(eq(passkeys.id, key.id));
    await note(db, crewId, 'passkey-removed', key.crewId);
    response.json(await houseFor(deviceOf(request), crewId));
  });
  serve(router, 'DELETE /api/sign-in/sessions/:sessionId', async (request, response) => {
    const { sessionId } = request.params;
    const { crewId, isLead } = await asker(deviceOf(request), null);
    const [found] = UUID_PATTERN.test(sessionId)
      ? await db.select().from(sessions).where(eq(sessions.id, sessionId))
      : [];
    if (!found || !(isLead || found.crewId === crewId)) throw notFound('session', sessionId);
    await write(async (tx) => {
      await endSessions(tx, { id: sessionId });
      await note(tx, crewId, 'session-ended', found.crewId);
    });
    response.json(await houseFor(deviceOf(request), crewId));
    hub.startOver();
  });
  return router;
}
