import { parseConfirmation, UUID_PATTERN } from '@voltrek/contracts';
import { Router } from 'express';
import { requireCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { notFound } from '../http/problem.js';
import { forgetPhotosOf } from '../jobs/photos.js';
import { erasePlates } from '../vehicles/repository.js';
import { callsBy, erasePerson, personById, vehiclesOf } from './repository.js';
import { serve } from '../http/serve.js';

/** Exports and erases a person: names and numbers stand here alone, so jobs and records stay, nameless. */
export function peopleRoutes({ db, write }: Database): Router {
  const router = Router();

  router.param('personId', (_request, _response, next, id: string) => {
    next(UUID_PATTERN.test(id) ? undefined : notFound('person', id));
  });

  serve(router, 'GET /api/people/:personId/export', async (request, response) => {
    const person = await personById(db, request.params.personId);
    if (!person) throw notFound('person', request.params.personId);
    const owned = await vehiclesOf(db, person.id);
    const called = await callsBy(db, person.id);
    response.attachment(`person-${person.id}.json`).json({
      format: 'voltrek-person',
      version: 1,
      person,
      vehicles: owned.map(({ id, plate, fleetNumber, serialNumber, modelId, notes }) => ({
        id,
        plate,
        fleetNumber,
        serialNumber,
        modelId,
        notes,
      })),
      calls: called.map(({ id, number, receivedAt, placeName, said }) => ({
        id,
        number,
        receivedAt: receivedAt.toISOString(),
        placeName,
        said,
      })),
    });
  });

  serve(router, 'POST /api/people/:personId/erase', async (request, response) => {
    const { by } = parseConfirmation(request.body);
    const { personId } = request.params;
    const erased = await write(async (tx) => {
      await requireCrew(tx, by);
      if (!(await personById(tx, personId))) throw notFound('person', personId);
      await forgetPhotosOf(tx, personId);
      await erasePlates(tx, personId);
      await erasePerson(tx, personId, new Date());
      return personById(tx, personId);
    });
    response.json(erased);
  });

  return router;
}
