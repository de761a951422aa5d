import { randomUUID } from 'node:crypto';
import { expect, type APIRequestContext } from '@playwright/test';
import type { Call, JobDetail, RulesPage } from '@voltrek/contracts';
import type { Symptom } from '@voltrek/core/diagnosis';
import {
  entryOf,
  type EventData,
  type EventEntry,
  foldJob,
  type JobEvent,
  planRecord,
  plannedRescue,
  rankForJob,
  type Situation,
  situationOf,
} from '@voltrek/core/job';
import { settingsOf } from '@voltrek/core/rules';

/** The log of a job before a test looks at it. */
export interface Before {
  /** Air, degC; left out: -4. */
  readonly ambientC?: number;
  readonly scene?: Partial<EventData['scene.recorded']>;
  readonly symptom?: Symptom;
  /** Rest volts of each battery, from the chassis side up. */
  readonly restVolts?: readonly number[];
  /** Id of the option that was chosen, as Plan names it in its address. */
  readonly plan?: string;
  /** The order of the plan was worked to its end. */
  readonly joined?: boolean;
  /** Anything else, after all of that. */
  readonly then?: readonly EventEntry[];
}

/** Its first event was so long ago: every step of it has had its time. */
const OPENED_AGO_MS = 3_600_000;
const STEP_MS = 20_000;

/** Puts a call for this machine on the board, without touching the demo's own. */
export async function postCall(
  request: APIRequestContext,
  url: string,
  modelId: string,
  ambientC: number,
): Promise<Call> {
  const title = `Test ${modelId} ${randomUUID().slice(0, 6)}`;
  const opened = await request.post(`${url}/api/board`, {
    data: {
      ...{ id: randomUUID(), title, placeName: 'Test yard', said: 'It clicks.' },
      ...{ modelId, ambientC, urgent: false },
    },
  });
  expect(opened.status()).toBe(201);
  return (await opened.json()) as Call;
}

/**
 * Puts a call on the board and posts the log of its job, as a device sends its kept events.
 *
 * @returns the title of the call and the id of the job
 */
export async function postJob(
  request: APIRequestContext,
  url: string,
  modelId: string,
  before: Before = {},
): Promise<{ readonly title: string; readonly jobId: string }> {
  const { ambientC = -4, scene, symptom, restVolts = [], plan, joined = false, then = [] } = before;
  const call = await postCall(request, url, modelId, ambientC);
  const { title } = call;
  // A device sends the rules that it worked by with the job.
  const house = (await (await request.get(`${url}/api/rules`)).json()) as RulesPage;
  const jobId = randomUUID();
  const log: JobEvent[] = [];
  let at = Date.now() - OPENED_AGO_MS;
  const post = async (entry: EventEntry, afterMs = STEP_MS): Promise<void> => {
    at += afterMs;
    const [type, data] = entry;
    const event = {
      ...{ id: randomUUID(), jobId, at: new Date(at).toISOString(), by: 'crew-1', type, data },
    } as JobEvent;
    const answer = await request.post(`${url}/api/jobs/${jobId}/events`, { data: event });
    expect(answer.ok(), await answer.text()).toBe(true);
    log.push(event);
  };
  await post([
    'job.opened',
    {
      ...{ callId: call.id, callNumber: call.number, title, placeName: call.placeName },
      ...{ modelId: call.modelId, vehicleId: call.vehicleId, ambientC, rules: settingsOf(house.rules) },
    },
  ]);
  if (scene)
    await post([
      'scene.recorded',
      {
        ...{ ambientC, place: 'yard', sloping: false, dark: true, enclosed: false, mainsNear: false },
        ...scene,
      },
    ]);
  if (symptom) await post(['symptom.recorded', { symptom }]);
  if (symptom || restVolts.length > 0) await post(['polarity.proved', { signs: ['mark', 'meter'] }]);
  for (const [battery, volts] of restVolts.entries())
    await post(['reading.taken', { kind: 'rest', volts, battery, tempC: ambientC, source: 'typed' }]);
  if (plan !== undefined) {
    const { machine, donorMachine, kit, earlierFlatCalls, rules } = (await (
      await request.get(`${url}/api/jobs/${jobId}`)
    ).json()) as JobDetail;
    const situation = (): Situation =>
      situationOf(foldJob(log)!, { machine, donor: donorMachine, kit, earlierFlatCalls }, rules);
    const ranked = rankForJob(situation());
    const chosen = ranked.find(({ option }) => option.id === plan);
    if (!chosen) throw new Error(`no ${plan} among ${ranked.map(({ option }) => option.id).join(', ')}`);
    await post(['plan.chosen', planRecord(chosen)!]);
    const rescue = plannedRescue(situation(), foldJob(log)!.plan)!;
    if (joined)
      for (const { action, minutes } of rescue.orders.hookup)
        await post(entryOf(action), minutes ? minutes * 60_000 + STEP_MS : STEP_MS);
  }
  for (const entry of then) await post(entry);
  return { title, jobId };
}
