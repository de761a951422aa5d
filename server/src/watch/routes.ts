import { Router } from 'express';
import type { Database } from '../db/database.js';
import { limitOf, WATCH_PAGE_MAX } from '../http/list-page.js';
import { serve } from '../http/serve.js';
import { watchPage } from './repository.js';

export function watchRoutes({ db }: Database): Router {
  const router = Router();
  serve(router, 'GET /api/watch', async (request, response) => {
    const { after } = request.query;
    const limit = limitOf(request, WATCH_PAGE_MAX, 1) ?? WATCH_PAGE_MAX;
    response.json(await watchPage(db, typeof after === 'string' ? after : '', limit, new Date()));
  });
  return router;
}
