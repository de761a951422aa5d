import { parseNewCall } from '@voltrek/contracts';
import { Router } from 'express';
import { modelById } from '../atlas/repository.js';
import type { Database } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { addCall, readBoard } from './repository.js';

export function boardRoutes({ db }: Database): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await readBoard(db));
  });
  router.post('/', async (request, response) => {
    const call = parseNewCall(request.body);
    if (!(await modelById(db, call.modelId))) throw notFound(`machine ${call.modelId}`);
    const { isNew, call: added } = await addCall(db, call, new Date());
    response.status(isNew ? 201 : 200).json(added);
  });
  return router;
}
