import type { WatchedVehicle, WatchPage } from '@voltrek/contracts';
import { type JobEvent, timeOf } from '@voltrek/core/job';
import { eq } from 'drizzle-orm';
import { jobs } from '../src/db/schema.js';
import { readEvents } from '../src/jobs/repository.js';
import { sharedServer } from './shared-server.js';

const DAY = 86_400_000;

/** All pages of the watch, so many rows each. */
async function allPages(limit: number): Promise<WatchedVehicle[]> {
  const { api } = await sharedServer();
  const all: WatchedVehicle[] = [];
  for (let after: string | null = ''; after !== null; ) {
    const { body } = await api.get('/api/watch').query({ limit, after }).expect(200);
    const page = body as WatchPage;
    expect(page.vehicles.length).toBeLessThanOrEqual(limit);
    all.push(...page.vehicles);
    after = page.next;
  }
  return all;
}

/** The last log of each vehicle that was closed, read apart. */
async function lastLogs(): Promise<ReadonlyMap<string, readonly JobEvent[]>> {
  const { database } = await sharedServer();
  const rows = await database.db
    .select({ id: jobs.id, vehicleId: jobs.vehicleId, closedAt: jobs.closedAt })
    .from(jobs)
    .where(eq(jobs.state, 'closed'));
  const last = new Map<string, (typeof rows)[number]>();
  for (const row of rows) {
    const known = last.get(row.vehicleId);
    if (!known || known.closedAt! < row.closedAt!) last.set(row.vehicleId, row);
  }
  const logs = [...last].map(async ([id, row]) => [id, await readEvents(database.db, row.id)] as const);
  return new Map(await Promise.all(logs));
}

/** A past job of the demo: its log is plain, and nothing in it is undone. */
const isOfDemo = (events: readonly JobEvent[]): boolean =>
  events.some((e) => e.type === 'job.opened' && /^call-\d+$/.test(e.data.callId));

describe('the watch', () => {
  it('lists each vehicle that was worked on once, as its last log left it', async () => {
    const [all, logs] = [await allPages(7), await lastLogs()];
    expect(all.map(({ id }) => id).sort()).toEqual([...logs.keys()].sort());
    let [found, charged] = [0, 0];
    for (const { id, standing } of all) {
      const events = logs.get(id)!;
      // Jobs of other specs stand on the same server, with any log.
      if (!isOfDemo(events)) continue;
      const closed = events.find(({ type }) => type === 'job.closed')!;
      const fitted = events.some(
        (e) => e.type === 'battery.replaced' || (e.type === 'follow-up.done' && e.data.kind === 'replace'),
      );
      const cause = events.flatMap((e) => (e.type === 'verdict.given' ? [e.data] : [])).at(-1)?.causes ?? [];
      expect(standing.earlier?.causes ?? []).toEqual([...cause]);
      const slow = events.some(
        (e) => e.type === 'symptom.recorded' && ['slow-crank', 'no-doors'].includes(e.data.symptom),
      );
      const turned = events.some((e) => e.type === 'symptom.recorded' && e.data.symptom === 'brisk-no-fire');
      if (standing.found) {
        found++;
        expect(standing.found.started).toBe(turned && !slow);
        const scene = events.flatMap((e) => (e.type === 'scene.recorded' ? [e.data] : [])).at(-1)!;
        expect(standing.found.tempC).toBe(scene.ambientC);
      } else expect(fitted || !(slow || turned)).toBe(true);
      const days = (Date.now() - Date.parse(timeOf(closed))) / DAY;
      if (standing.left) expect(standing.left.days).toBeCloseTo(days, 1);
      const isCharged = events.some((e) => e.type === 'follow-up.done' && e.data.kind === 'charge');
      if (isCharged && !fitted) {
        charged++;
        expect(standing.left!.soc).toBeGreaterThan(0.9);
      }
    }
    expect(found).toBeGreaterThan(10);
    expect(charged).toBeGreaterThan(10);
  });

  it('tells of a vehicle whether its owner wants letters, once that was said', async () => {
    const { api } = await sharedServer();
    const first = (await allPages(200)).find((one) => one.owner?.name);
    const { body } = await api.get(`/api/vehicles/${first!.id}`).expect(200);
    const { vehicle, owner } = body as {
      vehicle: { revision: number } & Record<string, unknown>;
      owner: { name: string; phone: string; noLetters: boolean };
    };
    expect(owner.noLetters).toBe(false);
    const { plate, fleetNumber, serialNumber, modelId, notes } = vehicle;
    const change = (noLetters?: boolean, more = 0) => ({
      vehicle: {
        ...{ plate, fleetNumber, serialNumber, modelId, notes },
        owner: { name: owner.name, phone: owner.phone, ...(noLetters !== undefined && { noLetters }) },
      },
      basedOn: vehicle.revision + more,
      by: 'crew-1',
    });
    await api.put(`/api/vehicles/${first!.id}`).send(change(true)).expect(200);
    // A device of before says nothing of it, and takes nothing away.
    await api.put(`/api/vehicles/${first!.id}`).send(change(undefined, 1)).expect(200);
    const again = (await allPages(200)).find(({ id }) => id === first!.id)!;
    expect(again.owner!.noLetters).toBe(true);
    await api.put(`/api/vehicles/${first!.id}`).send(change(false, 2)).expect(200);
  });

  it('refuses a limit that is none', async () => {
    const { api } = await sharedServer();
    await api.get('/api/watch').query({ limit: 0 }).expect(422);
    await api.get('/api/watch').query({ limit: 201 }).expect(422);
  });
});
