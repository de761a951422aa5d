import { parseVehicle, parseVehicleChange } from '@voltrek/contracts';
import { Router } from 'express';
import { requireCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { searchVehicles } from './repository.js';
import { addVehicle, changeVehicle, vehicleRecord } from './service.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';

export function vehicleRoutes(database: Database): Router {
  const { db, write } = database;
  const router = Router();
  serve(router, 'GET /api/vehicles', async (request, response) => {
    const typed = typeof request.query.q === 'string' ? request.query.q.slice(0, 80) : '';
    sendList(request, response, await searchVehicles(db, typed), ({ id }) => id);
  });
  serve(router, 'POST /api/vehicles', async (request, response) => {
    const entry = parseVehicle(request.body);
    const added = await write((tx) => addVehicle(tx, entry, new Date()));
    response.status(201).location(`/api/vehicles/${added.id}`).json(added);
  });
  serve(router, 'GET /api/vehicles/:vehicleId', async (request, response) => {
    response.json(await vehicleRecord(database, request.params.vehicleId));
  });
  serve(router, 'PUT /api/vehicles/:vehicleId', async (request, response) => {
    const { vehicle, basedOn, by } = parseVehicleChange(request.body);
    await write(async (tx) => {
      await requireCrew(tx, by);
      await changeVehicle(tx, request.params.vehicleId, vehicle, basedOn, new Date());
    });
    response.json(await vehicleRecord(database, request.params.vehicleId));
  });
  return router;
}
