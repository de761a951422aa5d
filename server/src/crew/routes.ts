import { randomUUID } from 'node:crypto';
import { parseCrewEntry } from '@voltrek/contracts';
import { and, eq, isNull, ne } from 'drizzle-orm';
import { Router } from 'express';
import type { Database, Tx } from '../db/database.js';
import { crew } from '../db/schema.js';
import { HttpProblem } from '../http/problem.js';
import type { StreamHub } from '../http/stream-hub.js';
import { requireOtherLead } from '../sign-in/secrets.js';
import { endSessions } from '../sign-in/sessions.js';
import { allCrew, requireCrew } from './repository.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';

export function crewRoutes({ db, write }: Database, hub: StreamHub): Router {
  const router = Router();
  serve(router, 'GET /api/crew', async (request, response) => {
    sendList(request, response, await allCrew(db), ({ id }) => id);
  });
  serve(router, 'POST /api/crew', async (request, response) => {
    const { name, role } = parseCrewEntry(request.body);
    const id = `crew-${randomUUID().slice(0, 8)}`;
    await db.insert(crew).values({ id, name, role });
    response.status(201).json(await allCrew(db));
  });
  serve(router, 'PUT /api/crew/:crewId', async (request, response) => {
    const { name, role, retired } = parseCrewEntry(request.body);
    const { crewId } = request.params;
    await write(async (tx) => {
      await requireCrew(tx, crewId);
      if (retired) await requireAnother(tx, crewId);
      if (retired || role !== 'crew-lead') await requireOtherLead(tx, crewId);
      await tx
        .update(crew)
        .set({ name, role, retiredAt: retired ? new Date() : null })
        .where(eq(crew.id, crewId));
      // A person who left receives nothing more, and is not signed in on the day they come back.
      if (retired) await endSessions(tx, { crewId });
    });
    response.json(await allCrew(db));
    if (retired) hub.startOver();
  });
  return router;
}

/** Somebody has to be left who can work. */
async function requireAnother(tx: Tx, crewId: string): Promise<void> {
  const others = await tx
    .select({ id: crew.id })
    .from(crew)
    .where(and(ne(crew.id, crewId), isNull(crew.retiredAt)))
    .limit(1);
  if (others.length === 0) throw new HttpProblem(409, 'lastOfCrew');
}
