import { mayDo, type NewCallChange, parseCallChange, parseNewCall } from '@voltrek/contracts';
import { Router } from 'express';
import { modelById } from '../atlas/repository.js';
import { requireCrew } from '../crew/repository.js';
import type { Database, Tx } from '../db/database.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { jobOfCall } from '../jobs/repository.js';
import { outsetOf } from '../jobs/service.js';
import { requireVan } from '../vans/repository.js';
import { vehicleOfCall } from '../vehicles/service.js';
import { addCall, callById, changeCall, changesOf, readBoard } from './repository.js';
import type { StreamHub } from '../http/stream-hub.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';

export function boardRoutes({ db, write }: Database, hub: StreamHub): Router {
  const router = Router();
  serve(router, 'GET /api/board', async (request, response) => {
    sendList(request, response, await readBoard(db), ({ id }) => id);
  });
  serve(router, 'POST /api/board', async (request, response) => {
    const call = parseNewCall(request.body);
    const result = await write(async (tx) => {
      // A resend of the same id changes nothing.
      const known = await callById(tx, call.id);
      if (known) return { call: known, isNew: false };
      const at = new Date();
      if (call.modelId && !(await modelById(tx, call.modelId))) throw notFound('machine', call.modelId);
      if (call.vanId) await requireVan(tx, call.vanId);
      if (call.technicianId) await requireWorker(tx, call.technicianId);
      return { call: await addCall(tx, call, await vehicleOfCall(tx, call, at), at), isNew: true };
    });
    if (result.isNew) hub.boardChanged();
    response.status(result.isNew ? 201 : 200).json(result.call);
  });
  serve(router, 'GET /api/board/:callId/outset', async (request, response) => {
    response.json(await outsetOf(db, request.params.callId));
  });
  serve(router, 'GET /api/board/:callId/changes', async (request, response) => {
    sendList(
      request,
      response,
      await changesOf(db, request.params.callId),
      ({ at, kind }) => `${at}_${kind}`,
    );
  });
  serve(router, 'POST /api/board/:callId/changes', async (request, response) => {
    const change = parseCallChange(request.body);
    const board = await write(async (tx) => {
      await judge(tx, request.params.callId, change);
      await changeCall(tx, request.params.callId, change, new Date());
      return readBoard(tx);
    });
    hub.boardChanged();
    response.status(201).json(board);
  });
  return router;
}

/** A call is given to somebody who works alone. @throws HttpProblem 404, 409 for one who must be answered for, or works on no job */
async function requireWorker(tx: Tx, crewId: string): Promise<void> {
  const { role } = await requireCrew(tx, crewId);
  if (!mayDo(role, 'work')) throw new HttpProblem(409, 'worksNotAlone');
}

/** @throws HttpProblem 404 for what nobody knows, 409 for what the call's state does not allow */
async function judge(
  tx: Tx,
  callId: string,
  { kind, vanId, technicianId, by }: NewCallChange,
): Promise<void> {
  const call = await callById(tx, callId);
  if (!call) throw notFound('call', callId);
  await requireCrew(tx, by);
  if (vanId) await requireVan(tx, vanId);
  if (technicianId) await requireWorker(tx, technicianId);
  const hasJob = (await jobOfCall(tx, callId)) !== null;
  if (call.state === 'done') throw new HttpProblem(409, 'callDone');
  if (kind === 'reopened' ? call.state !== 'called-off' : call.state === 'called-off')
    throw new HttpProblem(409, kind === 'reopened' ? 'callNotCalledOff' : 'callCalledOff');
  if (kind === 'called-off' && hasJob) throw new HttpProblem(409, 'jobOpenClose');
  if (kind === 'given-back' && hasJob) throw new HttpProblem(409, 'jobOpenPassOn');
}
