import { randomUUID } from 'node:crypto';
import {
  MOVE_NOTES,
  type NewBatteryMove,
  parseBatteryMove,
  parseNewBattery,
  UUID_PATTERN,
} from '@voltrek/contracts';
import { Router } from 'express';
import { modelById } from '../atlas/repository.js';
import { requireCrew } from '../crew/repository.js';
import type { Database, Tx } from '../db/database.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { requireVan } from '../vans/repository.js';
import { vehicleById } from '../vehicles/repository.js';
import { batteryRecord } from './record.js';
import { addBattery, batteriesIn, batteryById, looseBatteries, moveBattery } from './repository.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';

export function batteryRoutes(database: Database): Router {
  const { db, write } = database;
  const router = Router();

  /** Lists batteries in no vehicle: spares and those at the depot. */
  serve(router, 'GET /api/batteries', async (request, response) => {
    sendList(request, response, await looseBatteries(db), ({ id }) => id);
  });

  serve(router, 'POST /api/batteries', async (request, response) => {
    const { rating, dateMark, vanId, by } = parseNewBattery(request.body);
    const id = randomUUID();
    await write(async (tx) => {
      await requireCrew(tx, by);
      if (vanId) await requireVan(tx, vanId);
      const kind = vanId ? 'to-van' : 'taken-out';
      const first = {
        kind,
        by,
        vanId,
        at: new Date(),
        vehicleId: null,
        place: null,
        note: MOVE_NOTES.isNew,
      } as const;
      await addBattery(tx, id, rating, dateMark, first);
    });
    response.status(201).location(`/api/batteries/${id}`);
    response.json(await batteryRecord(database, id));
  });

  serve(router, 'GET /api/batteries/:batteryId', async (request, response) => {
    response.json(await batteryRecord(database, request.params.batteryId));
  });

  serve(router, 'POST /api/batteries/:batteryId/moves', async (request, response) => {
    const move = parseBatteryMove(request.body);
    const { batteryId } = request.params;
    if (!UUID_PATTERN.test(batteryId)) throw notFound('battery', batteryId);
    await write((tx) => moveByHand(tx, batteryId, move));
    response.status(201).json(await batteryRecord(database, batteryId));
  });

  return router;
}

/** @throws HttpProblem 404 for what nobody knows, 409 for a battery that is gone or a place that is taken */
async function moveByHand(tx: Tx, batteryId: string, move: NewBatteryMove): Promise<void> {
  const { kind, by, vehicleId, place, vanId, note } = move;
  await requireCrew(tx, by);
  const battery = await batteryById(tx, batteryId);
  if (!battery) throw notFound('battery', batteryId);
  if (battery.state === 'scrapped') throw new HttpProblem(409, 'batteryScrapped');
  if (kind === 'charged' && battery.state === 'fitted') throw new HttpProblem(409, 'batteryFitted');
  if (kind === 'fitted') await requireFreePlace(tx, vehicleId!, place!);
  if (kind === 'to-van') await requireVan(tx, vanId!);
  await moveBattery(tx, batteryId, { kind, by, vehicleId, place, vanId, note, at: new Date() });
}

async function requireFreePlace(tx: Tx, vehicleId: string, place: number): Promise<void> {
  const vehicle = await vehicleById(tx, vehicleId);
  if (!vehicle) throw notFound('vehicle', vehicleId);
  const machine = await modelById(tx, vehicle.modelId);
  if (machine && place >= machine.batteries.length) throw new HttpProblem(409, 'noSuchPlace');
  if ((await batteriesIn(tx, vehicleId)).some((b) => b.place === place))
    throw new HttpProblem(409, 'placeTaken');
}
