import type { Job, JobEvent } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { DEFAULT_RULES, type HouseRules, rulesWith } from '@voltrek/core/rules';
import { type KitItem, kitNow } from '@voltrek/core/sources';
import { sql } from 'drizzle-orm';
import type { Tx } from '../db/database.js';
import { newestSettings } from '../rules/repository.js';

/** Everything that one more event of a job is judged against. */
export interface Standing {
  readonly vehicleId: string;
  readonly vanId: string;
  /** Null where the log was kept before snapshots were, and is yet to be folded. */
  readonly job: Job | null;
  readonly machine: Machine;
  readonly kit: readonly KitItem[];
  readonly donor: Machine | null;
  readonly rules: HouseRules;
}

interface Row {
  readonly is_crew: boolean;
  readonly is_known: boolean;
  readonly vehicle_id: string | null;
  readonly van_id: string | null;
  readonly snapshot: Job | null;
  readonly machine: Machine | null;
  readonly kit: readonly KitItem[] | null;
  readonly donor: Machine | null;
  readonly rules: Readonly<Record<string, string | number>> | null;
}

/**
 * One look at everything that an event is judged against: who sends it, whether it stands already, its job, machine, kit, donor and rules.
 * An event is written between two breaths of the database, so a question less is felt by everybody who waits.
 *
 * @returns `standing` is null where the job has not been opened
 */
export async function standingFor(
  tx: Tx,
  { id, jobId, by }: Pick<JobEvent, 'id' | 'jobId' | 'by'>,
): Promise<{ readonly isCrew: boolean; readonly isKnown: boolean; readonly standing: Standing | null }> {
  const { rows } = await tx.execute(sql`
    SELECT
      EXISTS (SELECT 1 FROM crew WHERE crew.id = ${by}) AS is_crew,
      EXISTS (SELECT 1 FROM job_events WHERE job_events.id = ${id}) AS is_known,
      job.vehicle_id, job.van_id, job.snapshot, machine.detail AS machine, kit.items AS kit, donor.detail AS donor,
      (SELECT json_object_agg(key, value) FROM ${newestSettings(tx).as('newest')}) AS rules
    FROM (SELECT 1) one
    LEFT JOIN jobs job ON job.id = ${jobId}
    LEFT JOIN models machine ON machine.id = job.model_id
    LEFT JOIN LATERAL (
      SELECT json_agg(detail ORDER BY kit_items.van_id <> job.van_id, position) AS items,
        (array_agg(detail ->> 'modelId' ORDER BY kit_items.van_id <> job.van_id, position) FILTER (WHERE detail ->> 'kind' = 'donor'))[1] AS donor_id
      FROM kit_items WHERE retired_at IS NULL AND (kit_items.van_id = job.van_id OR kit_items.van_id IN (
        SELECT other ->> 'vanId' FROM jsonb_array_elements(job.snapshot -> 'vans') other
        WHERE other ->> 'arrivedAt' IS NOT NULL
      ))
    ) kit ON true
    LEFT JOIN models donor ON donor.id = kit.donor_id`);
  const row = rows[0] as unknown as Row;
  const now = new Date();
  const standing = row.vehicle_id !== null && row.van_id !== null && row.machine !== null;
  return {
    isCrew: row.is_crew,
    isKnown: row.is_known,
    standing: standing
      ? {
          vehicleId: row.vehicle_id,
          vanId: row.van_id,
          job: row.snapshot,
          machine: row.machine,
          kit: (row.kit ?? []).map((item) => kitNow(item, now)),
          donor: row.donor,
          rules: rulesWith(row.rules ?? {}, DEFAULT_RULES),
        }
      : null,
  };
}
