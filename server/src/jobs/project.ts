import {
  type EventType,
  kitCare,
  kitMeasured,
  kitUses,
  rulesOfJob,
  type Situation,
  situationOf,
  timeOf,
} from '@voltrek/core/job';
import { projectBatteries, movesBatteries, tellsOfBatteries } from '../batteries/of-job.js';
import { endCall, takenCall } from '../calls/repository.js';
import type { Tx } from '../db/database.js';
import { writePromises } from '../followups/repository.js';
import { chargeKit, markKit, measureKit } from '../vans/repository.js';
import { matchModel } from '../vehicles/service.js';
import type { Logged } from './repository.js';
import type { EventContext } from './event-context.js';

/** The state that events stand on beside their job. */
type Beside = Pick<EventContext, 'kit' | 'rules'>;

const promises = (tx: Tx, { kept: { job } }: Logged): Promise<void> => writePromises(tx, job);

const situationNow = ({ kept: { job }, machine }: Logged, { kit, rules }: Beside): Situation =>
  situationOf(job, { machine, donor: null, kit, earlierFlatCalls: 0 }, rulesOfJob(job, rules));

const measured = (tx: Tx, logged: Logged, beside: Beside): Promise<void> =>
  measureKit(tx, kitMeasured(logged.kept.job, situationNow(logged, beside)));

async function used(tx: Tx, logged: Logged, beside: Beside): Promise<void> {
  const { kept, event } = logged;
  const at = new Date(timeOf(event));
  await chargeKit(tx, kept.job.id, kitUses(kept.job, situationNow(logged, beside)), at);
  await markKit(tx, kitCare(kept.job, beside.kit), kept.job.id, at);
}

async function usedAndMeasured(tx: Tx, logged: Logged, beside: Beside): Promise<void> {
  await used(tx, logged, beside);
  await measured(tx, logged, beside);
}

/** Writes the changes of an event beside its job and the readings of its batteries: the call, the vehicle, the kit, the promises. */
const CHANGES: Readonly<
  Partial<Record<EventType, (tx: Tx, logged: Logged, beside: Beside) => Promise<void>>>
> = {
  'job.opened': (tx, { kept: { job, vanId }, event }) =>
    takenCall(tx, job.call.callId, vanId, event.by, new Date(timeOf(event))),
  'model.identified': (tx, { kept: { job, vehicleId } }) => matchModel(tx, vehicleId, job.modelId),
  'job.closed': async (tx, { kept: { job }, event }) => {
    await endCall(tx, job.call.callId, 'done', new Date(timeOf(event)));
    await writePromises(tx, job);
  },
  'follow-up.done': promises,
  'recheck.taken': promises,
  'leads.measured': measured,
  'clamp.detached': used,
  'pack.switched': used,
  'attempt.ended': usedAndMeasured,
  'event.undone': usedAndMeasured,
};

/** Whether an event of this type changes what other jobs stand on. */
export const changesOthers = (type: EventType): boolean => type in CHANGES || movesBatteries(type);

/** Whether an event of this type changes anything beside the log and the snapshot of its job. */
export const changesMore = (type: EventType): boolean => changesOthers(type) || tellsOfBatteries(type);

/** Brings everything up to date that an event changes beside the log and the snapshot of its job. */
export async function project(tx: Tx, logged: Logged, beside: Beside): Promise<void> {
  const { event, kept, machine } = logged;
  await projectBatteries(tx, kept.job, machine, kept.vehicleId, event);
  await CHANGES[event.type]?.(tx, logged, beside);
}
