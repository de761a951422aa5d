import { parseConfirmation, UUID_PATTERN } from '@voltrek/contracts';
import { Router } from 'express';
import { crewExists } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { allVans, finishMark } from './repository.js';

export function kitRoutes(database: Database): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await allVans(database.db));
  });
  router.post('/marks/:markId/done', async (request, response) => {
    const { by } = parseConfirmation(request.body);
    const { markId } = request.params;
    const vans = await database.db.transaction(async (tx) => {
      if (!(await crewExists(tx, by))) throw notFound(`crew member ${by}`);
      const isId = UUID_PATTERN.test(markId);
      if (!isId || !(await finishMark(tx, markId, by, new Date()))) throw notFound(`open mark ${markId}`);
      return allVans(tx);
    });
    response.json(vans);
  });
  return router;
}
