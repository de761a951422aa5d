import { Router } from 'express';
import type { Database } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { allMachines, machineById } from './repository.js';

export function atlasRoutes({ db }: Database): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await allMachines(db));
  });
  router.get('/:machineId', async (request, response) => {
    const machine = await machineById(db, request.params.machineId);
    if (!machine) throw notFound(`machine ${request.params.machineId}`);
    response.json(machine);
  });
  return router;
}
