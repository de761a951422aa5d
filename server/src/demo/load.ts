import { eq } from 'drizzle-orm';
import { MACHINE_CLASSES, templateOf } from '@voltrek/core';
import { writeMachine } from '../atlas/repository.js';
import { searchTextOf } from '../atlas/search-text.js';
import type { Database, Tx } from '../db/database.js';
import { calls, crew, facts, kitItems, models, vans } from '../db/schema.js';
import { appendEvents } from '../jobs/repository.js';
import { pastJobs } from './history.js';
import { CARS } from './machines-cars.js';
import { ELECTRICS } from './machines-electric.js';
import { PLANT_MACHINES } from './machines-plant.js';
import { ROAD_MACHINES } from './machines-road.js';
import { SMALL_AND_HEAVY } from './machines-small.js';
import { CREW, TONIGHT, VANS } from './scenario.js';

const FILLED = 'filled';

/** All machines of the demo atlas. */
export const DEMO_MACHINES = [...ROAD_MACHINES, ...PLANT_MACHINES, ...CARS, ...ELECTRICS, ...SMALL_AND_HEAVY];

/**
 * Fills a database on its first start: crew, vans and atlas always, so that there is something to work with; tonight's calls and two
 * winters of past jobs unless `empty`. Later starts change nothing.
 *
 * @param now the moment the demo night is timed against
 */
export async function loadDemo({ db }: Database, now: Date, empty: boolean): Promise<void> {
  await db.transaction(async (tx) => {
    await loadTemplates(tx);
    const [filled] = await tx.select().from(facts).where(eq(facts.key, FILLED));
    if (filled) return;
    await tx.insert(facts).values({ key: FILLED, value: empty ? 'empty' : 'demo' });
    await loadHouse(tx, now);
    if (!empty) await loadCalls(tx, now);
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

async function loadHouse(tx: Tx, now: Date): Promise<void> {
  await tx.insert(crew).values([...CREW]);
  const loaded = { kind: 'loaded', by: CREW[0]!.id, at: now, note: '' } as const;
  for (const machine of DEMO_MACHINES) await writeMachine(tx, machine, 'maker', 1, loaded);
  for (const { id, name, kit } of VANS) {
    await tx.insert(vans).values({ id, name });
    await tx
      .insert(kitItems)
      .values(kit.map((detail, position) => ({ id: detail.id, vanId: id, position, detail })));
  }
}

async function loadCalls(tx: Tx, now: Date): Promise<void> {
  const donor = DEMO_MACHINES.find((m) => m.id === 'service-van')!;
  const crewIds = CREW.map((c) => c.id);
  const past = pastJobs(DEMO_MACHINES, VANS[0]!.kit, donor, crewIds, now);
  await tx.insert(calls).values(past.map(({ call }) => call));
  for (const { events } of past) await appendEvents(tx, [], events);
  await tx.insert(calls).values(
    TONIGHT.map(({ minutesAgo, truth: _truth, ...call }, i) => ({
      ...call,
      id: `call-${past.length + 1 + i}`,
      number: past.length + 1 + i,
      receivedAt: new Date(now.getTime() - minutesAgo * 60_000),
    })),
  );
}
