import { parseRuleSetting } from '@voltrek/contracts';
import { Router } from 'express';
import { requireCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { addRuleSetting, rulesPage } from './repository.js';
import { serve } from '../http/serve.js';

export function ruleRoutes(database: Database): Router {
  const router = Router();
  serve(router, 'GET /api/rules', async (_request, response) => {
    response.json(await rulesPage(database.db));
  });
  serve(router, 'POST /api/rules', async (request, response) => {
    const setting = parseRuleSetting(request.body);
    const page = await database.write(async (tx) => {
      await requireCrew(tx, setting.by);
      await addRuleSetting(tx, setting, new Date());
      return rulesPage(tx);
    });
    response.status(201).json(page);
  });
  return router;
}
