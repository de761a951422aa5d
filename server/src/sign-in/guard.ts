import type { IncomingMessage } from 'node:http';
import { type Act, mayDo } from '@voltrek/contracts';
import type { Request, RequestHandler } from 'express';
import type { Database } from '../db/database.js';
import { noRoute } from '../http/fitting-request.js';
import { HttpProblem } from '../http/problem.js';
import { isLocal, type Reach } from '../http/reach.js';
import { routeOf } from '../http/route-of.js';
import type { Route } from '../http/routes.js';
import { note } from './audit.js';
import { isSignInRequired } from './secrets.js';
import { deviceOf, holderIn, type SignedIn, signedInOn } from './sessions.js';

/** How long a server trusts its copy of the setting: another on the same database may have changed it, ms. */
const BELIEVED_MS = 2_000;
/** Acts of the field that a device may still send after it was handed over. */
const SENT_LATER: readonly Act[] = ['assist', 'work', 'find'];
/** Their changes are written down: by whom, and what. */
const WRITTEN_DOWN: readonly Act[] = ['find', 'lead'];

/** The rights of a request, and the person it speaks as, while sign-in is on. */
interface Pass {
  readonly route: Route | null;
  readonly here: readonly SignedIn[];
}

const passes = new WeakMap<IncomingMessage, Pass>();

/** Whether sign-in is on, as this server knows it. */
export interface SignInRule {
  readonly isShut: () => Promise<boolean>;
  /** Asks the database anew: it was shut or opened here. */
  readonly look: () => void;
}

export function signInRuleOf({ db }: Database): SignInRule {
  let known: { readonly isShut: Promise<boolean>; readonly at: number } | null = null;
  return {
    isShut: () => {
      if (!known || Date.now() - known.at > BELIEVED_MS)
        known = { isShut: isSignInRequired(db), at: Date.now() };
      known.isShut.catch(() => (known = null));
      return known.isShut;
    },
    look: () => (known = null),
  };
}

/**
 * Admits, while sign-in is required, only a person who signed in on the device, and only within their role. A request speaks as whoever it
 * names in `by`, or as whoever holds the device where it names nobody. A form is read later: what it names, {@link requireSpeaker} looks
 * at.
 */
export function guardRoutes({ db }: Database, rule: SignInRule, reach: Reach): RequestHandler {
  return async (request, response, next) => {
    await reach.noteRequest(request);
    const isShut = await rule.isShut();
    if (!isShut && (await reach.isPublic())) requireSetUp(request);
    // Without sign-in nothing is looked up.
    const route = isShut ? routeOf(request.method, `/api${request.path}`) : undefined;
    if (route === undefined || route?.act === 'open') {
      next();
      return;
    }
    const here = await signedInOn(db, deviceOf(request));
    const holder = holderIn(here);
    if (!holder) throw new HttpProblem(401, 'signIn');
    passes.set(request, { route, here });
    const asked = `${request.method} ${request.originalUrl.split('?')[0]}`;
    // An address outside the table is refused, whatever a router would make of it.
    if (!route && !['GET', 'HEAD'].includes(request.method)) throw noRoute(request);
    try {
      if (!request.is('multipart/form-data')) requireSpeaker(request, namedBy(request));
      else if (!allowedOf(route, here).some(({ role }) => isAllowed(route, role)))
        throw new HttpProblem(403, 'notYourRole');
    } catch (error) {
      if (error instanceof HttpProblem && error.status === 403)
        await note(db, holder.crewId, 'refused', asked);
      throw error;
    }
    if (route && WRITTEN_DOWN.includes(route.act) && request.method !== 'GET')
      response.on('finish', () => {
        if (response.statusCode >= 300) return;
        // The change itself stands: that a line about it could not be written must not undo the answer.
        note(db, namedBy(request) ?? holder.crewId, 'changed', asked).catch(() => undefined);
      });
    next();
  };
}

/** Paths that setting up needs: who works here, their PINs, and the setting itself. */
const SETS_UP = /^\/(sign-in(\/(house|door|pins\/[^/]+))?|crew(\/[^/]+)?|vans|house)\/?$/;
/** Paths that tell nothing of anybody: whether the server is well, and whether sign-in is on. */
const TELLS_NOBODY = /^\/(health|sign-in)\/?$/;

/**
 * A house that others reach without sign-in answers what setting up needs, to this machine alone.
 *
 * @throws HttpProblem 403 for anything else
 */
function requireSetUp(request: Request): void {
  const isRead = request.method === 'GET' || request.method === 'HEAD';
  if (isRead && TELLS_NOBODY.test(request.path)) return;
  if (isLocal(request) && SETS_UP.test(request.path)) return;
  throw new HttpProblem(403, 'notSetUp');
}

/**
 * Whom a request speaks as; null without sign-in, when that is whoever it says.
 *
 * @throws HttpProblem 401 for a name that is not signed in on this device. 403 for an act beyond its role, or by a name that handed the
 *   device over
 */
export function requireSpeaker(request: Request, by: string | null): SignedIn | null {
  const pass = passes.get(request);
  if (!pass) return null;
  const { route, here } = pass;
  const speaker = by === null ? holderIn(here) : here.find(({ crewId }) => crewId === by);
  if (!speaker) throw new HttpProblem(401, 'signInAs');
  if (!allowedOf(route, here).includes(speaker)) throw new HttpProblem(403, 'handedOver');
  if (!speaker.holds && !wasDoneBefore(request, speaker)) throw new HttpProblem(403, 'handedOver');
  if (!isAllowed(route, speaker.role)) throw new HttpProblem(403, 'notYourRole');
  return speaker;
}

/** A tap that waited on the device tells how long: what was done before the hand-over is sent under its own name. */
function wasDoneBefore(request: Request, { handedOverAt }: SignedIn): boolean {
  const heldMs = Number(request.get('voltrek-held-ms') ?? 0);
  return handedOverAt !== null && Date.now() - heldMs <= handedOverAt.getTime() + SAME_MOMENT_MS;
}
/** A tap of the moment of the hand-over may arrive a little late, ms. */
const SAME_MOMENT_MS = 1_000;

/** Returns the holder of the device that a request comes from; null without sign-in. */
export const holderOf = (request: Request): SignedIn | null =>
  holderIn(passes.get(request)?.here ?? []) ?? null;

/** Acts of the field may be sent under the names of those who handed the device over since; anything else only by its holder. */
const allowedOf = (route: Route | null, here: readonly SignedIn[]): readonly SignedIn[] =>
  route && (SENT_LATER as readonly string[]).includes(route.act) ? here : here.filter(({ holds }) => holds);

const isAllowed = (route: Route | null, role: SignedIn['role']): boolean =>
  route === null || route.act === 'open' || mayDo(role, route.act);

function namedBy(request: Request): string | null {
  const { by } = (request.body ?? {}) as { readonly by?: unknown };
  return typeof by === 'string' ? by : null;
}
