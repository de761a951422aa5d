import { randomUUID } from 'node:crypto';
import { mayDo, parseJobFilter, parseStoredEvent, UUID_PATTERN } from '@voltrek/contracts';
import { Router } from 'express';
import type { Database } from '../db/database.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { holderOf, requireSpeaker } from '../sign-in/guard.js';
import { PHOTO_BYTES_MAX } from '../atlas/photo.js';
import { bodyId, formPhotoId, sentFile, upload } from '../files/upload.js';
import { jobPhotoById, keepJobPhoto } from './photos.js';
import { figuresOf } from './figures.js';
import { readLog } from './repository.js';
import { acceptEvents } from './accept.js';
import { jobDetail, jobSheet } from './service.js';
import type { StreamHub } from '../http/stream-hub.js';
import { DAY_MS } from '@voltrek/core/quantities';
import { JOBS_PAGE_MAX, limitOf } from '../http/list-page.js';
import { serve } from '../http/serve.js';

export function jobRoutes(database: Database, hub: StreamHub): Router {
  const router = Router();
  const accept = acceptEvents(database, hub);

  router.param('jobId', (_request, _response, next, jobId: string) => {
    next(UUID_PATTERN.test(jobId) ? undefined : notFound('job', jobId));
  });

  serve(router, 'GET /api/jobs', async (request, response) => {
    response.json(
      await readLog(database.db, {
        text: textOf(request.query.q) ?? '',
        filter: parseJobFilter(request.query),
        limit: limitOf(request, JOBS_PAGE_MAX, 0) ?? 50,
        after: textOf(request.query.after),
      }),
    );
  });

  serve(router, 'GET /api/jobs/figures', async (request, response) => {
    response.json(await figuresOf(database.db, parseJobFilter(request.query), new Date()));
  });

  serve(router, 'GET /api/jobs/:jobId', async (request, response) => {
    response.json(await jobDetail(database, request.params.jobId));
  });

  serve(router, 'GET /api/jobs/:jobId/sheet', async (request, response) => {
    response.json(await jobSheet(database, request.params.jobId));
  });

  serve(router, 'POST /api/jobs/:jobId/events', async (request, response) => {
    const event = parseStoredEvent(request.body);
    // A device of an earlier version may still report what no log keeps any more.
    if (!event) {
      response.status(204).end();
      return;
    }
    if (event.jobId !== request.params.jobId) throw new HttpProblem(422, 'eventOfAnotherJob');
    const speaker = requireSpeaker(request, event.by);
    const isAlone = speaker === null || mayDo(speaker.role, 'work');
    const heldMs = heldMsOf(request.get('voltrek-held-ms'));
    const sentBy = speaker && !speaker.holds ? (holderOf(request)?.crewId ?? null) : null;
    // To answer for somebody is said in person.
    if (sentBy && event.type === 'job.supervised') throw new HttpProblem(403, 'handedOver');
    const acknowledged = await accept({ event, heldMs, sentBy, isAlone });
    // Nobody asks for it twice: it needs no mark of what it holds.
    response
      .status(acknowledged.isNew ? 201 : 200)
      .location(`/api/jobs/${event.jobId}`)
      .type('json')
      .end(JSON.stringify(acknowledged));
  });

  serve(
    router,
    'POST /api/jobs/:jobId/photos',
    upload(PHOTO_BYTES_MAX).single('photo'),
    async (request, response) => {
      const { jobId } = request.params;
      const id = formPhotoId(request) ?? randomUUID();
      await keepJobPhoto(database, { id, jobId, by: bodyId(request) }, sentFile(request));
      response.status(201).location(`/api/jobs/${jobId}/photos/${id}`).json({ id });
    },
  );

  serve(router, 'GET /api/jobs/:jobId/photos/:photoId', async (request, response) => {
    const { jobId, photoId } = request.params;
    const jpeg = UUID_PATTERN.test(photoId) ? await jobPhotoById(database.db, jobId, photoId) : null;
    if (!jpeg) throw notFound('photo', photoId);
    // It may be forgotten with a person, so no copy outlives the page.
    response.set('Cache-Control', 'private, no-cache').type('image/jpeg').send(Buffer.from(jpeg));
  });

  return router;
}

/** A tap that waited on a device says how long. Nothing is held for longer than a month. */
const HELD_MOST_MS = 31 * DAY_MS;

function heldMsOf(text: string | undefined): number {
  if (text === undefined) return 0;
  if (!/^\d{1,10}$/.test(text) || Number(text) > HELD_MOST_MS) throw new HttpProblem(422, 'heldMs');
  return Number(text);
}

function textOf(value: unknown): string | null {
  if (value === undefined || value === '') return null;
  if (typeof value !== 'string' || value.length > 200) throw new HttpProblem(422, 'searchText');
  return value;
}
