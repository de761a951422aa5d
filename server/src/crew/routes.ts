import { Router } from 'express';
import type { Database } from '../db/database.js';
import { allCrew } from './repository.js';

export function crewRoutes({ db }: Database): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await allCrew(db));
  });
  return router;
}
