import { randomUUID } from 'node:crypto';
import type { BatteryRating } from '@voltrek/core/battery';
import { MACHINE_CLASSES, templateOf } from '@voltrek/core/machine';
import { writeMachine } from '../atlas/repository.js';
import { searchTextOf } from '../atlas/search-text.js';
import { addBattery } from '../batteries/repository.js';
import type { Database, Tx } from '../db/database.js';
import { calls, crew, kitItems, models, people, vans, vehicles } from '../db/schema.js';
import { isFilled, markFilled } from '../house/filled.js';
import { writeLog } from '../jobs/whole-log.js';
import { plateKeyOf, vehicleSearchText } from '../vehicles/repository.js';
import { type DemoVehicle, demoFleet } from './fleet.js';
import { pastJobs } from './history.js';
import { CARS } from './machines-cars.js';
import { ELECTRICS } from './machines-electric.js';
import { PLANT_MACHINES } from './machines-plant.js';
import { ROAD_MACHINES } from './machines-road.js';
import { SMALL_AND_HEAVY } from './machines-small.js';
import { CREW, TONIGHT, VANS } from './scenario.js';

/** What each van carries to fit where a battery is finished. */
const SPARES: readonly BatteryRating[] = [
  { chemistry: 'agm', capacityAh: 70, ccaAmps: 760, ccaStandard: 'EN' },
  { chemistry: 'efb', capacityAh: 65, ccaAmps: 650, ccaStandard: 'EN' },
];

/** All machines of the demo atlas. */
export const DEMO_MACHINES = [...ROAD_MACHINES, ...PLANT_MACHINES, ...CARS, ...ELECTRICS, ...SMALL_AND_HEAVY];

/**
 * Fills a database on its first start with the demo: crew, vans, atlas, tonight's calls and two winters of past jobs. An `empty` one has
 * nothing but the templates of unknown machines, and is set up in the interface. Later starts change nothing.
 *
 * @param now the moment the demo night is timed against
 */
export async function loadDemo({ db }: Database, now: Date, empty: boolean): Promise<void> {
  await db.transaction(async (tx) => {
    await loadTemplates(tx);
    if (await isFilled(tx)) return;
    await markFilled(tx, empty ? 'empty' : 'demo');
    if (empty) return;
    await loadHouse(tx, now);
    await loadCalls(tx, now);
  });
}

/** Entries that stand for a class are the product's own: they follow it at every start. */
async function loadTemplates(tx: Tx): Promise<void> {
  for (const detail of MACHINE_CLASSES.map(templateOf)) {
    const { id, maker, model, machineClass } = detail;
    const row = { id, maker, model, machineClass, detail, searchText: searchTextOf(detail) };
    await tx.insert(models).values(row).onConflictDoUpdate({ target: models.id, set: row });
  }
}

/** The atlas that ships. */
export async function loadAtlas(tx: Tx, by: string, now: Date): Promise<void> {
  const loaded = { kind: 'loaded', by, at: now, note: '' } as const;
  for (const machine of DEMO_MACHINES) await writeMachine(tx, machine, 'maker', 1, loaded);
}

async function loadHouse(tx: Tx, now: Date): Promise<void> {
  await tx.insert(crew).values(CREW.map(({ id, name, role }) => ({ id, name, role })));
  await loadAtlas(tx, CREW[0]!.id, now);
  for (const { id, name, kit } of VANS) {
    await tx.insert(vans).values({ id, name });
    await tx
      .insert(kitItems)
      .values(kit.map((detail, position) => ({ id: detail.id, vanId: id, position, detail })));
    for (const rating of SPARES)
      await addBattery(tx, randomUUID(), rating, null, {
        kind: 'to-van',
        by: CREW[0]!.id,
        at: now,
        vehicleId: null,
        place: null,
        vanId: id,
        note: 'new in the record',
      });
  }
}

async function loadCalls(tx: Tx, now: Date): Promise<void> {
  const donor = DEMO_MACHINES.find((m) => m.id === 'service-van')!;
  const fleet = demoFleet(DEMO_MACHINES, donor.id);
  await loadFleet(tx, fleet, now);
  const crewIds = CREW.map((c) => c.id);
  const past = pastJobs(DEMO_MACHINES, fleet, VANS, donor, crewIds, now);
  await tx.insert(calls).values(
    past.map(({ call, events }) => {
      const { vanId, ...rest } = call;
      const last = events.filter((e) => e.type === 'job.closed').at(-1)!;
      return { ...rest, vanId, technicianId: last.by, state: 'done' as const, endedAt: new Date(last.at) };
    }),
  );
  const byId = new Map(DEMO_MACHINES.map((m) => [m.id, m]));
  for (const { call, events } of past)
    await writeLog(tx, events, { vehicleId: call.vehicleId, vanId: call.vanId }, byId.get(call.modelId)!);
  await tx.insert(calls).values(
    TONIGHT.map(({ minutesAgo, truth: _truth, which, ...call }, i) => {
      const vehicle = fleet.find((v) => v.id === `${call.modelId}-${which}`)!;
      const van = VANS[i % VANS.length]!;
      return {
        ...call,
        id: `call-${past.length + 1 + i}`,
        number: past.length + 1 + i,
        receivedAt: new Date(now.getTime() - minutesAgo * 60_000),
        vehicleId: vehicle.id,
        callerId: vehicle.ownerId,
        promisedAt: call.urgent ? new Date(now.getTime() + PROMISE_MINUTES * 60_000) : null,
        // Every other call is with somebody already; the rest wait for whoever is free first.
        ...(i % 2 === 1 && { vanId: van.id, technicianId: CREW[i % CREW.length]!.id }),
      };
    }),
  );
}

/** What the callers of urgent calls were told, from the demo's moment. */
const PROMISE_MINUTES = 25;

async function loadFleet(tx: Tx, fleet: readonly DemoVehicle[], now: Date): Promise<void> {
  const owners = new Map(fleet.map(({ ownerId, owner }) => [ownerId, owner]));
  await tx
    .insert(people)
    .values([...owners].map(([id, { name, phone }]) => ({ id, name, phone, createdAt: now })));
  const names = new Map(DEMO_MACHINES.map((m) => [m.id, `${m.maker} ${m.model}`]));
  await tx.insert(vehicles).values(
    fleet.map(({ owner: _owner, ...vehicle }) => ({
      ...vehicle,
      plateKey: vehicle.plate === null ? null : plateKeyOf(vehicle.plate),
      createdAt: now,
      searchText: vehicleSearchText(vehicle, names.get(vehicle.modelId)!),
    })),
  );
}
