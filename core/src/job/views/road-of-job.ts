import { type RunDown, runDown } from '../../charging/index.js';
import { type Check, checkOf, outcomeIndex, type Suspect } from '../../diagnosis/index.js';
import { chargingMendedAt, chargingReadings } from './charging-read.js';
import { withoutDoubts } from './doubts.js';
import { type DriveAdvice, driveOfJob } from './drive-of-job.js';
import type { Job, Reading } from '../job.js';
import { currentVerdict } from './queries.js';
import type { Situation } from '../situation.js';

/** The evidence that the machine's own charging works: read in its band, not read, read and not clear yet, or shown to fail. */
export type ChargingState = 'shown' | 'unread' | 'not-shown' | 'fails';

/** The advice on driving. It sends somebody onto the road only where a reading shows that charging works. */
export type Road =
  | { readonly kind: 'drive'; readonly drive: DriveAdvice }
  | { readonly kind: 'read-charging'; readonly charging: 'unread' | 'not-shown' }
  /** The minutes that it runs on its battery as it is, and on a charged one. */
  | { readonly kind: 'do-not-drive'; readonly asItIs: RunDown; readonly charged: RunDown };

const CHARGING_SUSPECTS: readonly (Suspect | null)[] = ['charging', 'belt'];

/** Returns whether the charging of this job's machine was shown to work: what was read since anything of it was mended. */
export function chargingOfJob(recorded: Job, { machine, record }: Situation): ChargingState {
  const job = withoutDoubts(recorded, record.machine);
  const read = chargingReadings(job);
  const outcomeOf = (check: Check, reading: Reading | null): string | null => {
    const index = reading && outcomeIndex(check, (reading.volts * 12) / machine.systemVolts);
    return index === null ? null : (check.outcomes[index] ?? null);
  };
  const idle = outcomeOf(checkOf('charging'), read.idle);
  const loaded = outcomeOf(checkOf('charging-loaded'), read.loaded);
  const isBlamed = CHARGING_SUSPECTS.includes(currentVerdict(job)?.suspect ?? null);
  if (job.findings['look-belt'] === 'bad' || (isBlamed && chargingMendedAt(job) === '')) return 'fails';
  if (idle === 'over' || loaded === 'over') return 'fails';
  // Five minutes on and at raised revs only an alternator that is weak stays low; at idle a flat battery holds a good one down.
  if (loaded !== null) return loaded === 'in-band' ? 'shown' : 'fails';
  if (idle === null) return 'unread';
  if (idle === 'in-band') return 'shown';
  // A smart alternator lets a full battery rest: it is read again with a load on.
  return idle === 'none' && !machine.smartAlternator ? 'fails' : 'not-shown';
}

/** Returns what may be said of driving on after a start; null for a machine that wakes, or that does not run. */
export function roadOfJob(job: Job, situation: Situation): Road | null {
  const { machine, batteries, casualtyRuns } = situation;
  const drive = casualtyRuns ? driveOfJob(job, situation) : null;
  if (!drive) return null;
  const charging = chargingOfJob(job, situation);
  if (charging === 'shown') return { kind: 'drive', drive };
  if (charging !== 'fails') return { kind: 'read-charging', charging };
  const { rating } = machine.batteries[0]!;
  return {
    kind: 'do-not-drive',
    asItIs: runDown(rating, machine.machineClass, Math.min(...batteries.socs)),
    charged: runDown(rating, machine.machineClass, 1),
  };
}
