import { plateKeyOf } from '@voltrek/contracts/search-text';
import { randomUUID } from 'node:crypto';
import {
  faultAt,
  type NewCall,
  type Vehicle,
  type VehicleEntry,
  type VehicleRecord,
} from '@voltrek/contracts';
import { and, desc, eq } from 'drizzle-orm';
import { modelById, modelSummary, requireModel } from '../atlas/repository.js';
import { batteriesIn } from '../batteries/repository.js';
import type { Database, Tx } from '../db/database.js';
import { followUps, jobs, vehicles } from '../db/schema.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { jobColumns, summaryOf } from '../jobs/repository.js';
import { addPerson, changePerson, personById } from '../people/repository.js';
import { vehicleById, vehicleByPlate, vehicleSearchText } from './repository.js';

const VISITS_MOST = 100;

/** A vehicle as it comes in with a call: known by its id or plate, or made. @throws HttpProblem 404 for an id or a model nobody knows */
export async function vehicleOfCall(
  tx: Tx,
  named: Pick<NewCall, 'vehicleId' | 'plate' | 'modelId' | 'newVehicleId'>,
  at: Date,
): Promise<Vehicle> {
  const known = named.vehicleId
    ? await vehicleById(tx, named.vehicleId)
    : named.plate
      ? await vehicleByPlate(tx, named.plate)
      : null;
  if (known) return known;
  if (named.vehicleId) throw notFound('vehicle', named.vehicleId);
  if (!named.modelId)
    throw new HttpProblem(422, 'plateUnknown', {
      fields: [faultAt('modelId', 'modelOfNewPlate')],
    });
  const entry = { plate: named.plate ?? null, fleetNumber: null, serialNumber: null, modelId: named.modelId };
  return addVehicle(tx, { ...entry, owner: null, notes: '' }, at, named.newVehicleId);
}

/** @throws HttpProblem 404 for an unknown model, 409 for a plate of another vehicle or a used id */
export async function addVehicle(
  tx: Tx,
  entry: VehicleEntry,
  at: Date,
  id: string = randomUUID(),
): Promise<Vehicle> {
  if (await vehicleById(tx, id)) throw new HttpProblem(409, 'vehicleIdTaken');
  const ownerId = entry.owner ? await addPerson(tx, entry.owner, at) : null;
  await tx.insert(vehicles).values({ id, ownerId, createdAt: at, ...(await columnsOf(tx, id, entry)) });
  return (await vehicleById(tx, id))!;
}

/** @throws HttpProblem 409 when it was changed by somebody else meanwhile */
export async function changeVehicle(
  tx: Tx,
  id: string,
  entry: VehicleEntry,
  basedOn: number,
  at: Date,
): Promise<Vehicle> {
  const known = await vehicleById(tx, id);
  if (!known) throw notFound('vehicle', id);
  if (known.revision !== basedOn) throw new HttpProblem(409, 'vehicleChanged');
  let { ownerId } = known;
  if (entry.owner && ownerId) await changePerson(tx, ownerId, entry.owner);
  else if (entry.owner) ownerId = await addPerson(tx, entry.owner, at);
  else ownerId = null;
  await tx
    .update(vehicles)
    .set({ ownerId, revision: basedOn + 1, ...(await columnsOf(tx, id, entry)) })
    .where(eq(vehicles.id, id));
  return (await vehicleById(tx, id))!;
}

/** A vehicle turned out to be another model. */
export async function matchModel(tx: Tx, id: string, modelId: string): Promise<void> {
  const vehicle = (await vehicleById(tx, id))!;
  const { maker, model } = (await modelById(tx, modelId))!;
  await tx
    .update(vehicles)
    .set({
      modelId,
      revision: vehicle.revision + 1,
      searchText: vehicleSearchText(vehicle, `${maker} ${model}`),
    })
    .where(eq(vehicles.id, id));
}

async function columnsOf(tx: Tx, id: string, entry: VehicleEntry) {
  const model = await requireModel(tx, entry.modelId);
  const { plate, fleetNumber, serialNumber, modelId, notes } = entry;
  const other = plate === null ? null : await vehicleByPlate(tx, plate);
  if (other && other.id !== id) throw new HttpProblem(409, 'plateTaken');
  return {
    plate,
    plateKey: plate === null ? null : plateKeyOf(plate),
    fleetNumber,
    serialNumber,
    modelId,
    notes,
    searchText: vehicleSearchText(entry, `${model.maker} ${model.model}`),
  };
}

/** Everything that is known of a vehicle. @throws HttpProblem 404 */
export async function vehicleRecord({ db }: Database, id: string): Promise<VehicleRecord> {
  const vehicle = await vehicleById(db, id);
  if (!vehicle) throw notFound('vehicle', id);
  const model = (await modelSummary(db, vehicle.modelId))!;
  const visits = await db
    .select(jobColumns)
    .from(jobs)
    .where(eq(jobs.vehicleId, id))
    .orderBy(desc(jobs.openedAt))
    .limit(VISITS_MOST);
  const due = await db
    .select({ jobId: followUps.jobId, kind: followUps.kind, dueOn: followUps.dueOn })
    .from(followUps)
    .innerJoin(jobs, eq(jobs.id, followUps.jobId))
    .where(and(eq(jobs.vehicleId, id), eq(followUps.done, false)));
  return {
    vehicle: { ...vehicle, modelName: `${model.maker} ${model.model}` },
    model,
    owner: await personById(db, vehicle.ownerId),
    visits: visits.map(summaryOf),
    batteries: await batteriesIn(db, id),
    followUps: due,
  };
}
