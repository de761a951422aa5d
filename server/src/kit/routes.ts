import { Router } from 'express';
import type { Database } from '../db/database.js';
import { allVans } from './repository.js';

export function kitRoutes({ db }: Database): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await allVans(db));
  });
  return router;
}
