import {
  type HouseFigures,
  type JobFilter,
  JOB_TRAITS,
  type LogPage,
  type Problem,
  RUNNING_EDGES_MIN,
} from '@voltrek/contracts';
import { type JobEvent, timeOf } from '@voltrek/core/job';
import { eq } from 'drizzle-orm';
import type { Database } from '../src/db/database.js';
import { calls, followUps, jobs, models } from '../src/db/schema.js';
import { figuresOf } from '../src/jobs/figures.js';
import { readEvents, readLog } from '../src/jobs/repository.js';
import { sharedServer } from './shared-server.js';
import { demoDatabase } from './test-database.js';

/** One closed job as its log tells it, counted here by hand. */
interface Told {
  readonly id: string;
  readonly vehicleId: string;
  readonly openedAt: number;
  readonly closedAt: number;
  readonly traits: Readonly<Record<(typeof JOB_TRAITS)[number], string | null>>;
  readonly minutes: number | null;
  readonly tries: readonly { readonly source: string; readonly odds: number | null; readonly ran: boolean }[];
}

const DAY = 86_400_000;
const FROM_AFAR = ['job.opened', 'job.supervised', 'note.added', 'van.called'];

function told(events: readonly JobEvent[], vehicleId: string, vanId: string, machineClass: string): Told {
  const first = events[0]!;
  const arrived = events.find((e) => !FROM_AFAR.includes(e.type))!;
  const tries: { source: string; odds: number | null; ran: boolean }[] = [];
  let plan: { sourceId: string; sourceKind: string; odds: number | null } | null = null;
  let isUsed = false;
  let joined = 0;
  let start: { at: number; by: string } | null = null;
  let verdict: { verdict: string; suspect: string | null } | null = null;
  for (const e of events) {
    if (e.type === 'plan.chosen') [plan, isUsed] = [e.data, false];
    if (e.type === 'clamp.attached') joined++;
    if (e.type === 'clamp.detached') joined--;
    if (e.type === 'verdict.given') verdict = e.data;
    if (e.type !== 'attempt.ended') continue;
    const ran = e.data.outcome === 'started';
    if (joined > 0) tries.push({ source: plan!.sourceId, odds: isUsed ? null : plan!.odds, ran });
    isUsed = true;
    if (ran) start ??= { at: Date.parse(timeOf(e)), by: joined > 0 ? plan!.sourceKind : 'itself' };
  }
  return {
    id: first.jobId,
    vehicleId,
    openedAt: Date.parse(timeOf(first)),
    closedAt: Date.parse(timeOf(events.find((e) => e.type === 'job.closed')!)),
    traits: {
      vanId,
      by: first.by,
      machineClass,
      startedBy: start?.by ?? null,
      suspect: verdict?.suspect ?? null,
      verdict: verdict?.verdict ?? null,
    },
    minutes: start && (start.at - Date.parse(timeOf(arrived))) / 60_000,
    tries,
  };
}

const cameBack = (job: Told, all: readonly Told[]): Told | undefined =>
  all
    .filter((o) => o.vehicleId === job.vehicleId && o.openedAt > job.closedAt)
    .filter((o) => o.openedAt <= job.closedAt + 30 * DAY)
    .sort((a, b) => a.openedAt - b.openedAt)[0];

describe('the figures of the house', () => {
  let database: Database;
  let all: Told[];

  beforeAll(async () => {
    database = await demoDatabase();
    const rows = await database.db
      .select({ id: jobs.id, vehicleId: jobs.vehicleId, vanId: jobs.vanId, of: models.machineClass })
      .from(jobs)
      .innerJoin(models, eq(models.id, jobs.modelId))
      .where(eq(jobs.state, 'closed'));
    all = [];
    for (const { id, vehicleId, vanId, of } of rows)
      all.push(told(await readEvents(database.db, id), vehicleId, vanId, of));
  });
  afterAll(() => database.close());

  /** Returns the jobs that a filter names, by hand. */
  function named(filter: JobFilter): Told[] {
    return all.filter(
      (job) =>
        (!filter.from || job.closedAt >= Date.parse(filter.from)) &&
        (!filter.to || job.closedAt < Date.parse(filter.to)) &&
        JOB_TRAITS.every(
          (trait) => filter[trait] === undefined || (job.traits[trait] ?? 'none') === filter[trait],
        ) &&
        (!filter.kit || job.tries.some(({ source }) => source === filter.kit)) &&
        (filter.runningFrom !== '20' || (job.minutes !== null && job.minutes >= 20 && job.minutes < 30)) &&
        (!filter.returned || cameBack(job, all) !== undefined),
    );
  }
  const middle = (): number => all.map(({ closedAt }) => closedAt).sort((a, b) => a - b)[all.length >> 1]!;

  it('are those of the logs, for every filter that a bar sets', async () => {
    expect(all.length).toBeGreaterThan(100);
    const half = new Date(middle()).toISOString();
    const traits = JOB_TRAITS.flatMap((trait) =>
      [...new Set(all.map((job) => job.traits[trait] ?? 'none'))].map((value) => ({ [trait]: value })),
    );
    const filters: JobFilter[] = [
      ...[{}, { from: half }, { to: half }, { returned: 'yes' as const }],
      ...traits,
      { to: half, verdict: 'charge-first', returned: 'yes' },
    ];
    let returns = 0;
    for (const filter of filters) {
      const of = named(filter);
      const figures = await figuresOf(database.db, filter, new Date());
      const what = JSON.stringify(filter);
      expect(figures.jobs).withContext(what).toBe(of.length);
      const ran = of.flatMap(({ minutes }) => minutes ?? []).sort((a, b) => a - b);
      const edges = [0, ...RUNNING_EDGES_MIN, Infinity];
      expect(figures.minutesToRunning)
        .withContext(what)
        .toEqual(edges.slice(1).map((to, i) => ran.filter((m) => m >= edges[i]! && m < to).length));
      if (ran.length > 0)
        expect(figures.medianMinutes)
          .withContext(what)
          .toBeCloseTo((ran[(ran.length - 1) >> 1]! + ran[ran.length >> 1]!) / 2, 6);
      else expect(figures.medianMinutes).withContext(what).toBeNull();
      for (const trait of JOB_TRAITS)
        for (const { key, jobs: count, returned } of figures.traits[trait]) {
          const with_ = of.filter((job) => job.traits[trait] === key);
          expect([count, returned])
            .withContext(`${what} ${trait} ${key}`)
            .toEqual([with_.length, with_.filter((job) => cameBack(job, all)).length]);
        }
      const back = of.flatMap((job) => cameBack(job, all) ?? []);
      returns += back.length;
      expect(figures.returns.reduce((n, r) => n + r.jobs, 0))
        .withContext(what)
        .toBe(back.length);
      const tries = of.flatMap((job) => job.tries);
      expect(figures.kit.reduce((n, k) => n + k.tries, 0))
        .withContext(what)
        .toBe(tries.length);
      expect(figures.kit.reduce((n, k) => n + k.failed, 0))
        .withContext(what)
        .toBe(tries.filter((t) => !t.ran).length);
      const claims = tries.filter((t) => t.odds !== null);
      expect(figures.odds.reduce((n, row) => n + row.count, 0))
        .withContext(what)
        .toBe(claims.length);
      expect(figures.odds.reduce((n, row) => n + row.count * row.met, 0))
        .withContext(what)
        .toBeCloseTo(claims.filter((t) => t.ran).length, 6);
    }
    expect(returns).withContext('the demo has vehicles that came back').toBeGreaterThan(0);
  });

  it('name the jobs that the log lists under the same filter', async () => {
    const some = all.find(({ traits }) => traits.suspect !== null)!;
    for (const filter of [
      { verdict: some.traits.verdict!, vanId: some.traits.vanId! },
      { suspect: some.traits.suspect! },
      { startedBy: 'none' },
      { kit: all.find(({ tries }) => tries.length > 0)!.tries[0]!.source },
      { runningFrom: '20' },
      { returned: 'yes' as const },
    ]) {
      const { jobs: listed } = await readLog(database.db, { text: '', filter, limit: 200, after: null });
      expect(listed.map(({ id }) => id).sort()).toEqual(
        named(filter)
          .map(({ id }) => id)
          .sort(),
      );
      expect(listed.length).toBe((await figuresOf(database.db, filter, new Date())).jobs);
    }
  });

  it('are asked for by the address, and a filter that names nothing is refused by its field', async () => {
    const { api } = await sharedServer();
    const { jobs: count } = (await api.get('/api/jobs/figures?verdict=&vanId=').expect(200))
      .body as HouseFigures;
    const { body } = await api.get('/api/jobs?limit=200&startedBy=none').expect(200);
    expect((body as LogPage).jobs.length).toBeLessThanOrEqual(count);
    for (const query of ['verdict=bogus', 'from=yesterday', 'runningFrom=7', 'vanId=A%20B', 'returned=no'])
      for (const path of ['/api/jobs', '/api/jobs/figures']) {
        const refused = (await api.get(`${path}?${query}`).expect(422)).body as Problem;
        expect(refused.fields?.map((f) => f.path)).toEqual([query.split('=')[0]!]);
      }
  });

  it('count promises of arrival as kept or late, and rechecks as done, due or late', async () => {
    const [early, late] = all.filter(({ minutes }) => minutes !== null) as [Told, Told];
    const promise = async ({ id, openedAt }: Told, afterMs: number): Promise<void> => {
      const [row] = await database.db.select().from(jobs).where(eq(jobs.id, id));
      await database.db
        .update(calls)
        .set({ promisedAt: new Date(openedAt + afterMs) })
        .where(eq(calls.id, row!.callId));
    };
    await promise(early, DAY);
    await promise(late, -DAY);
    const figures = await figuresOf(database.db, {}, new Date());
    expect(figures.promises).toEqual({ kept: 1, late: 1 });
    const rows = await database.db.select().from(followUps).where(eq(followUps.kind, 'recheck'));
    const today = new Date().toISOString().slice(0, 10);
    const open = rows.filter(({ done }) => !done);
    expect(rows.length).toBeGreaterThan(0);
    expect(figures.rechecks).toEqual({
      done: rows.length - open.length,
      due: open.filter(({ dueOn }) => dueOn >= today).length,
      late: open.filter(({ dueOn }) => dueOn < today).length,
    });
  });
});
