import { MOVE_NOTES } from '@voltrek/contracts';
import { plateKeyOf, searchTextOf } from '@voltrek/contracts/search-text';
import { randomUUID } from 'node:crypto';
import { type Machine, MACHINE_CLASSES } from '@voltrek/core/machine';
import { templateOf } from '@voltrek/core/template';
import { writeMachines } from '../atlas/repository.js';
import { addBattery } from '../batteries/repository.js';
import type { Database, Tx } from '../db/database.js';
import { calls, crew, kitItems, models, people, vans, vehicles } from '../db/schema.js';
import { isFilled, markFilled } from '../house/filled.js';
import { writeLog } from '../jobs/whole-log.js';
import { knownAt } from '../vans/repository.js';
import { vehicleSearchText } from '../vehicles/repository.js';
import { type DemoHouse, demoHouse, shippedAtlas } from './data.js';
import { type DemoVehicle, demoFleet } from './fleet.js';
import { pastJobs } from './history.js';

/** The model that a service van is, whose batteries and posts lend. */
const DONOR_MODEL = 'service-van';

/**
 * Fills a database on its first start with the demo: crew, vans, atlas, tonight's calls and two winters of past jobs. An `empty` one has
 * nothing but the templates of unknown machines, and is set up in the interface. Later starts change nothing.
 *
 * @param now the moment the demo night is timed against
 */
export async function loadDemo({ write }: Database, now: Date, empty: boolean): Promise<void> {
  await write(async (tx) => {
    await loadTemplates(tx);
    if (await isFilled(tx)) return;
    await markFilled(tx, empty ? 'empty' : 'demo');
    if (empty) return;
    const machines = shippedAtlas();
    const house = demoHouse();
    await loadCrewAndVans(tx, house, now);
    await writeAtlas(tx, machines, house.crew[0]!.id, now);
    await loadCalls(tx, machines, house, now);
  });
}

/** Entries that stand for a class are the product's own: they follow it at every start. */
async function loadTemplates(tx: Tx): Promise<void> {
  for (const detail of MACHINE_CLASSES.map((of) => templateOf(of))) {
    const { id, maker, model, machineClass } = detail;
    const row = { id, maker, model, machineClass, detail, searchText: searchTextOf(detail) };
    await tx.insert(models).values(row).onConflictDoUpdate({ target: models.id, set: row });
  }
}

/** The atlas that ships. */
export const loadAtlas = (tx: Tx, by: string, now: Date): Promise<void> =>
  writeAtlas(tx, shippedAtlas(), by, now);

async function writeAtlas(tx: Tx, machines: readonly Machine[], by: string, now: Date): Promise<void> {
  const loaded = { kind: 'loaded', by, at: now, note: '' } as const;
  const entries = machines.map((machine) => ({ machine, revision: 1 }));
  await writeMachines(tx, entries, 'maker', loaded);
}

async function loadCrewAndVans(tx: Tx, house: DemoHouse, now: Date): Promise<void> {
  await tx.insert(crew).values(house.crew.map(({ id, name, role }) => ({ id, name, role })));
  for (const { id, name, kit } of house.vans) {
    await tx.insert(vans).values({ id, name });
    await tx
      .insert(kitItems)
      .values(
        kit.map((item, position) => ({ id: item.id, vanId: id, position, detail: knownAt(item, now) })),
      );
    for (const rating of house.spares)
      await addBattery(tx, randomUUID(), rating, null, {
        kind: 'to-van',
        by: house.crew[0]!.id,
        at: now,
        vehicleId: null,
        place: null,
        vanId: id,
        note: MOVE_NOTES.isNew,
      });
  }
}

async function loadCalls(tx: Tx, machines: readonly Machine[], house: DemoHouse, now: Date): Promise<void> {
  const byId = new Map(machines.map((m) => [m.id, m]));
  const fleet = demoFleet(machines, DONOR_MODEL, house);
  await loadFleet(tx, fleet, byId, now);
  const crewIds = house.crew.map((c) => c.id);
  const past = pastJobs(machines, fleet, house.vans, byId.get(DONOR_MODEL)!, crewIds, now);
  await tx.insert(calls).values(
    past.map(({ call, events }) => {
      const { vanId, ...rest } = call;
      const last = events.filter((e) => e.type === 'job.closed').at(-1)!;
      return { ...rest, vanId, technicianId: last.by, state: 'done' as const, endedAt: new Date(last.at) };
    }),
  );
  for (const { call, events } of past)
    await writeLog(tx, events, { vehicleId: call.vehicleId, vanId: call.vanId }, byId.get(call.modelId)!);
  await tx.insert(calls).values(
    house.calls.map(({ minutesAgo, truth: _truth, truthSeed: _seed, which, ...call }, i) => {
      const vehicle = fleet.find((v) => v.id === `${call.modelId}-${which}`)!;
      const van = house.vans[i % house.vans.length]!;
      return {
        ...call,
        id: `call-${past.length + 1 + i}`,
        number: past.length + 1 + i,
        receivedAt: new Date(now.getTime() - minutesAgo * 60_000),
        vehicleId: vehicle.id,
        callerId: vehicle.ownerId,
        promisedAt: call.urgent ? new Date(now.getTime() + PROMISE_MINUTES * 60_000) : null,
        // Every other call is with somebody already; the rest wait for whoever is free first.
        ...(i % 2 === 1 && { vanId: van.id, technicianId: house.crew[i % house.crew.length]!.id }),
      };
    }),
  );
}

const modelNameOf = ({ maker, model }: Machine): string => `${maker} ${model}`;

/** Promised to callers of urgent calls, minutes from the demo's moment. */
const PROMISE_MINUTES = 25;

async function loadFleet(
  tx: Tx,
  fleet: readonly DemoVehicle[],
  byId: ReadonlyMap<string, Machine>,
  now: Date,
): Promise<void> {
  const owners = new Map(fleet.map(({ ownerId, owner }) => [ownerId, owner]));
  await tx
    .insert(people)
    .values([...owners].map(([id, { name, phone }]) => ({ id, name, phone, createdAt: now })));
  await tx.insert(vehicles).values(
    fleet.map(({ owner: _owner, ...vehicle }) => ({
      ...vehicle,
      plateKey: vehicle.plate === null ? null : plateKeyOf(vehicle.plate),
      createdAt: now,
      searchText: vehicleSearchText(vehicle, modelNameOf(byId.get(vehicle.modelId)!)),
    })),
  );
}
