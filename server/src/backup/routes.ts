import { parseBackupWanted } from '@voltrek/contracts';
import { Router } from 'express';
import { requireCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { HttpProblem } from '../http/problem.js';
import type { BackupKeeper } from './keeper.js';
import { serve } from '../http/serve.js';

/** The backups of this house, and making one now. */
export function backupRoutes({ db }: Database, keeper: BackupKeeper): Router {
  const router = Router();
  serve(router, 'GET /api/backups', async (_request, response) => {
    response.json(await keeper.state());
  });
  serve(router, 'POST /api/backups', async (request, response) => {
    const { by } = parseBackupWanted(request.body);
    await requireCrew(db, by);
    try {
      await keeper.make('by-hand');
    } catch (error) {
      throw new HttpProblem(507, 'noBackup', { params: [error instanceof Error ? error.message : ''] });
    }
    response.status(201).json(await keeper.state());
  });
  return router;
}
