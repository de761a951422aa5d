import { type LeadUse, measuredFactor } from '../../leads/index.js';
import { startsByWaking } from '../../machine/index.js';
import { planCase, sourceFactor } from '../../plan/index.js';
import type { KitItem, LeadPackKit, LeadSetKit, LithiumPackKit } from '../../sources/index.js';
import type { Job } from '../job.js';
import { workingTempC } from './queries.js';
import { planCases, rankForJob } from './rescue-of-job.js';
import type { Situation } from '../situation.js';
import { momentOfTry } from './ways-of-job.js';

/** Kit that its uses measure. */
export type MeasuredKit = LeadSetKit | LithiumPackKit | LeadPackKit;

const isPack = (item: KitItem): item is LithiumPackKit | LeadPackKit =>
  item.kind === 'lithium-pack' || item.kind === 'lead-pack';
const isMeasured = (item: KitItem): item is MeasuredKit => item.kind === 'lead-set' || isPack(item);

/**
 * The lead sets and packs of a van, each with this job's measurement in place of the one before: an undone reading goes again.
 * Only those that change are given. The volts at its two ends measure a set. The fall of the posts in its tries measures a pack.
 */
export function kitMeasured(job: Job, situation: Situation): MeasuredKit[] {
  const ofTries = usesOfTries(job, situation);
  return situation.record.kit.flatMap((item) => {
    if (!isMeasured(item)) return [];
    const before = item.uses ?? [];
    const own = item.kind === 'lead-set' ? usesOfSet(job, item) : (ofTries.get(item.id) ?? []);
    const known = before.filter(({ jobId }) => jobId === job.id);
    if (JSON.stringify(known) === JSON.stringify(own)) return [];
    const uses = [...before.filter(({ jobId }) => jobId !== job.id), ...own].sort((a, b) =>
      a.at < b.at ? -1 : a.at > b.at ? 1 : 0,
    );
    return [{ ...item, uses }];
  });
}

function usesOfSet(job: Job, { id, leads }: LeadSetKit): LeadUse[] {
  return job.leadReadings
    .filter(({ leadSetId }) => leadSetId === id)
    .flatMap((reading): LeadUse[] => {
      const found = measuredFactor(reading, leads, workingTempC(job));
      return found ? [{ jobId: job.id, at: reading.at, ...found }] : [];
    });
}

/** Returns the lesson of the best try with each pack, by the id of the pack. */
function usesOfTries(job: Job, situation: Situation): ReadonlyMap<string, readonly LeadUse[]> {
  const uses = new Map<string, LeadUse[]>();
  const { machine, batteries: read, tempC, rules } = situation;
  const { kit } = situation.record;
  const { engine } = machine;
  const packs = new Set(kit.filter(isPack).map(({ id }) => id));
  const tries = job.attempts.filter(
    ({ sourceId, outcome, lowestVolts }) =>
      sourceId !== null && packs.has(sourceId) && outcome !== null && lowestVolts !== null,
  );
  if (!engine || startsByWaking(machine) || tries.length === 0) return uses;
  // Against its rating, not against what was measured of it before.
  const asRated = kit.map((item) => (isPack(item) ? { ...item, uses: [] } : item));
  const alone = planCase(machine, null, read, tempC, rules);
  if (!alone) return uses;
  const cases = planCases(situation, rankForJob(situation, asRated));
  for (const attempt of tries) {
    const { sourceId, outcome, lowestVolts, startedAt } = attempt;
    const moment = momentOfTry(job, attempt, cases, alone, read.beliefs);
    const found = moment && sourceFactor(moment, engine, outcome!, lowestVolts!);
    const [best] = uses.get(sourceId!) ?? [];
    // The tries of one job share its joints, its battery and its cold: the best of them tells of the pack, the others of those.
    if (found && (!best || found.factor < best.factor))
      uses.set(sourceId!, [{ jobId: job.id, at: startedAt, ...found }]);
  }
  return uses;
}
