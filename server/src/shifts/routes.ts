import { parseConfirmation, parseNewShiftEnd, type ShiftEnd, UUID_PATTERN } from '@voltrek/contracts';
import { desc, eq } from 'drizzle-orm';
import { Router } from 'express';
import { requireCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { shiftEnds } from '../db/schema.js';
import { sendList } from '../http/list-page.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { serve } from '../http/serve.js';
import { leftOver } from './left-over.js';

const LISTED_MOST = 200;

/** Ends of shifts: what is left, given over by one person and taken over by another. */
export function shiftRoutes({ db, write }: Database): Router {
  const router = Router();

  serve(router, 'GET /api/shifts', async (request, response) => {
    const rows = await db.select().from(shiftEnds).orderBy(desc(shiftEnds.givenAt)).limit(LISTED_MOST);
    sendList(request, response, rows.map(shiftOf), ({ id }) => id);
  });

  serve(router, 'GET /api/shifts/left', async (_request, response) => {
    response.json(await leftOver(db, new Date()));
  });

  serve(router, 'POST /api/shifts', async (request, response) => {
    const { id, by, note } = parseNewShiftEnd(request.body);
    const { row, isNew } = await write(async (tx) => {
      await requireCrew(tx, by);
      const [known] = await tx.select().from(shiftEnds).where(eq(shiftEnds.id, id));
      if (known) return { row: known, isNew: false };
      const givenAt = new Date();
      const values = { id, givenBy: by, givenAt, note, left: await leftOver(tx, givenAt) };
      const [kept] = await tx.insert(shiftEnds).values(values).returning();
      return { row: kept!, isNew: true };
    });
    response.status(isNew ? 201 : 200).json(shiftOf(row));
  });

  serve(router, 'POST /api/shifts/:shiftId/signature', async (request, response) => {
    const { by } = parseConfirmation(request.body);
    const { shiftId } = request.params;
    const row = await write(async (tx) => {
      await requireCrew(tx, by);
      const [known] = UUID_PATTERN.test(shiftId)
        ? await tx.select().from(shiftEnds).where(eq(shiftEnds.id, shiftId))
        : [];
      if (!known) throw notFound('shift', shiftId);
      if (known.givenBy === by) throw new HttpProblem(409, 'ownShift');
      if (known.takenBy !== null) return known;
      const taken = { takenBy: by, takenAt: new Date() };
      const [kept] = await tx.update(shiftEnds).set(taken).where(eq(shiftEnds.id, shiftId)).returning();
      return kept!;
    });
    response.json(shiftOf(row));
  });

  return router;
}

const shiftOf = ({ givenAt, takenAt, ...row }: typeof shiftEnds.$inferSelect): ShiftEnd => ({
  ...row,
  givenAt: givenAt.toISOString(),
  takenAt: takenAt?.toISOString() ?? null,
});
