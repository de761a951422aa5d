import { type Job, type JobEvent, vansHere } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import type { HouseRules } from '@voltrek/core/rules';
import { type KitItem, kitNow } from '@voltrek/core/sources';
import { inArray, sql } from 'drizzle-orm';
import type { Tx } from '../db/database.js';
import { LastRead, rowVersion } from '../db/last-read.js';
import { jobs, kitItems, models } from '../db/schema.js';
import { houseRules } from '../rules/repository.js';
import { kitOfVans } from '../vans/repository.js';
import { currentSnapshot } from './repository.js';

/** Everything that one more event of a job is judged against. */
export interface EventContext {
  readonly vehicleId: string;
  readonly vanId: string;
  /** Null where another version made the snapshot: the log is to be folded. */
  readonly job: Job | null;
  readonly machine: Machine;
  readonly kit: readonly KitItem[];
  readonly donor: Machine | null;
  readonly rules: HouseRules;
}

/** The facts beside an event before it is judged. */
export interface Looked {
  /** True where the reporter is one of the crew. */
  readonly isCrew: boolean;
  /** It stands in a log already. */
  readonly isKnown: boolean;
  /** Null where the job has not been opened. */
  readonly context: EventContext | null;
}

/** The rows of a database that were read for earlier events, as far as they are unchanged: of one database, never of two. */
export class ReadForEvents {
  readonly jobs = new LastRead<Job | null>(400);
  readonly machines = new LastRead<Machine>(400);
  readonly kits = new LastRead<readonly KitItem[]>(200);
  readonly rules = new LastRead<HouseRules>(1);
}

interface Row {
  readonly is_crew: boolean;
  readonly is_known: boolean;
  readonly job_id: string;
  readonly vehicle_id: string | null;
  readonly van_id: string | null;
  readonly model_id: string | null;
  readonly job_version: string | null;
  readonly machine_version: string | null;
}

/** Versions of what is the whole house's: sent once, with the first of the rows. */
interface HouseRow {
  /** By van: of all that it carries together. */
  readonly kit_versions: Readonly<Record<string, string>> | null;
  /** By the id of a machine that some van carries a donor of. */
  readonly donor_versions: Readonly<Record<string, string>> | null;
  readonly rules_version: string;
}

/**
 * One look at everything that events are judged against: who sends them, whether they stand already, their jobs, machines, kit, donors and
 * rules. Events are written between two breaths of the database, so a question less is felt by everybody who waits: what was read before is
 * read again only where the database says that it is another now.
 *
 * @returns for each event, in their order
 */
export async function contextsFor(
  tx: Tx,
  read: ReadForEvents,
  events: readonly Pick<JobEvent, 'id' | 'jobId' | 'by'>[],
): Promise<Looked[]> {
  const [rows, house] = await look(tx, events);
  const jobNow = await read.jobs.of(
    versions(rows.map(({ job_id, job_version }) => [job_id, job_version])),
    async (ids) => {
      const kept = await tx
        .select({ id: jobs.id, job: currentSnapshot })
        .from(jobs)
        .where(inArray(jobs.id, ids));
      return kept.map(({ id, job }) => [id, job]);
    },
  );
  const vansOf = ({ job_id, van_id }: Row): readonly string[] => {
    const job = jobNow.get(job_id);
    return van_id === null ? [] : [van_id, ...(job ? vansHere(job) : [])];
  };
  const vanIds = rows.flatMap(vansOf);
  const kits = await read.kits.of(
    versions(vanIds.map((id) => [id, house.kit_versions?.[id] ?? null])),
    async (ids) => Object.entries(await kitOfVans(tx, ids)),
  );
  const donorsOf = (kit: readonly KitItem[]): readonly string[] =>
    kit.flatMap((item) => (item.kind === 'donor' ? item.modelId : []));
  const machines = await read.machines.of(
    versions([
      ...rows.flatMap(({ model_id, machine_version }) =>
        model_id ? [[model_id, machine_version] as const] : [],
      ),
      ...[...kits.values()].flatMap(donorsOf).map((id) => [id, house.donor_versions?.[id] ?? null] as const),
    ]),
    async (ids) => {
      const entries = await tx
        .select({ id: models.id, detail: models.detail })
        .from(models)
        .where(inArray(models.id, ids));
      return entries.map(({ id, detail }) => [id, detail]);
    },
  );
  const rules = await read.rules.of(versions([[RULES, house.rules_version]]), async () => [
    [RULES, await houseRules(tx)],
  ]);
  const now = new Date();
  return rows.map((row) => {
    const { is_crew: isCrew, is_known: isKnown, vehicle_id: vehicleId, van_id: vanId } = row;
    const machine = row.model_id === null ? undefined : machines.get(row.model_id);
    if (vehicleId === null || vanId === null || !machine) return { isCrew, isKnown, context: null };
    const kit = vansOf(row).flatMap((id) => (kits.get(id) ?? []).map((item) => kitNow(item, now)));
    const [donorId] = donorsOf(kit);
    const context: EventContext = {
      ...{ vehicleId, vanId, job: jobNow.get(row.job_id) ?? null, machine, kit, rules: rules.get(RULES)! },
      donor: donorId === undefined ? null : (machines.get(donorId) ?? null),
    };
    return { isCrew, isKnown, context };
  });
}

const RULES = 'rules';

/** Returns the state of the jobs of these events, in their order, with the versions of the rows behind it. */
async function look(
  tx: Tx,
  events: readonly Pick<JobEvent, 'id' | 'jobId' | 'by'>[],
): Promise<readonly [readonly Row[], HouseRow]> {
  const asked = JSON.stringify(events.map(({ id, jobId, by }, n) => ({ n, id, job_id: jobId, by })));
  // Each by its key: joined, or asked whether it exists, the database would rather read whole tables for the hundred events that it
  // expects.
  const { rows } = await tx.execute(sql`
    SELECT
      (SELECT true FROM crew WHERE crew.id = asked.by) IS NOT NULL AS is_crew,
      (SELECT true FROM job_events WHERE job_events.id = asked.id) IS NOT NULL AS is_known,
      asked.job_id, jobs.vehicle_id, jobs.van_id, jobs.model_id, jobs.version AS job_version,
      (SELECT ${rowVersion(models)} FROM models WHERE models.id = jobs.model_id) AS machine_version,
      CASE WHEN n = 0 THEN (
        SELECT json_object_agg(van_id, version) FROM (
          SELECT van_id, string_agg(${rowVersion(kitItems)}, ' ' ORDER BY position) AS version
          FROM kit_items WHERE retired_at IS NULL GROUP BY van_id
        ) carried
      ) END AS kit_versions,
      CASE WHEN n = 0 THEN (
        SELECT json_object_agg(id, ${rowVersion(models)}) FROM models WHERE id IN (
          SELECT detail ->> 'modelId' FROM kit_items WHERE retired_at IS NULL AND detail ->> 'kind' = 'donor'
        )
      ) END AS donor_versions,
      CASE WHEN n = 0 THEN (SELECT count(*) || ' ' || coalesce(max(position), 0) FROM rule_settings) END AS rules_version
    FROM jsonb_to_recordset(${asked}::jsonb) AS asked (n int, id uuid, job_id uuid, by text)
    LEFT JOIN LATERAL (
      SELECT vehicle_id, van_id, model_id, ${rowVersion(jobs)} AS version FROM jobs WHERE jobs.id = asked.job_id LIMIT 1
    ) jobs ON true
    ORDER BY asked.n`);
  return [rows as unknown as readonly Row[], rows[0] as unknown as HouseRow];
}

/** Returns the rows that have a version: a missing row has none. */
const versions = (
  all: readonly (readonly [key: string, version: string | null])[],
): ReadonlyMap<string, string> =>
  new Map(all.flatMap(([key, version]) => (version === null ? [] : [[key, version] as const])));
