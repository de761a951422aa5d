import { Router } from 'express';
import type { Database } from '../db/database.js';
import { batteryRecord } from './service.js';

export function batteryRoutes(database: Database): Router {
  const router = Router();

  router.get('/:modelId', async (request, response) => {
    response.json(await batteryRecord(database, request.params.modelId));
  });

  return router;
}
