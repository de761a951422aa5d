import { TestBed } from '@angular/core/testing';
import { CLAMP_IDS } from '@voltrek/core/circuit';
import { act, type HookupAction, hazardsOf } from '@voltrek/core/hookup';
import {
  entryOf,
  type EventEntry,
  foldJob,
  type JobEvent,
  nextAction,
  ownerAdvice,
  refusalInLog,
  type Stage,
  STAGES,
  underCharge,
} from '@voltrek/core/job';
import { seededRandom } from '@voltrek/core/quantities';
import type { KitItem } from '@voltrek/core/sources';
import type { Store } from '@ngrx/store';
import { event, KIT, opened, VAN, CAR, detailOf, planned } from '../../testing/fixtures';
import { openedStore } from '../../testing/job-harness';
import { judgedStep } from '../shared/job/judged-step';
import {
  selectClearingRun,
  selectEvents,
  selectHookupRun,
  selectMakeSafe,
  selectOptions,
  selectRescue,
  selectWork,
} from '../shared/job/job-selectors';
import { JobActions } from '../shared/model/job-state';
import { stageResults } from './rail/stage-results';

const CHARGER: KitItem = {
  kind: 'mains-charger',
  id: 'charger',
  name: 'Charger',
  amps: 6,
  volts: 14.4,
  startAmps: null,
  leads: { sectionMm2: 6, lengthM: 1.8, conductor: 'copper', contact: 'clean' },
};
const SEEDS = 30;
const STEPS = 40;
/** In so many turns the next action is taken, else anything. */
const FOLLOWS_SHARE = 0.85;

/** A state of the store as the screens read it. */
function read(store: Store) {
  const of = <T>(selector: (state: object) => T): T => {
    let value!: T;
    store
      .select(selector as never)
      .subscribe((v) => (value = v as T))
      .unsubscribe();
    return value;
  };
  return {
    work: of(selectWork)!,
    events: of(selectEvents),
    rescue: of(selectRescue),
    hookup: of(selectHookupRun),
    clearing: of(selectClearingRun),
    makeSafe: of(selectMakeSafe),
    options: of(selectOptions),
  };
}

/** Everything is read by the screens' own selectors, and held against what the log says by itself. */
describe('the screens of one job', () => {
  it('never answer one question differently, whatever happens in it', () => {
    const found = new Set<string>();
    let helpedStarts = 0;
    for (let seed = 1; seed <= SEEDS; seed++) {
      const random = seededRandom(seed);
      const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
      const kit = [...KIT, CHARGER];
      const first = opened();
      const store = openedStore({ ...detailOf([first]), kit });
      const around = { machine: CAR, donor: VAN, kit, rules: detailOf([]).rules };
      let stage: Stage = 'scene';
      for (let n = 0; n < STEPS; n++) {
        const now = read(store);
        examine(now, found, seed);
        if (now.work.job.attempts.some((a) => a.helped && a.outcome === 'started')) helpedStarts++;
        const runs = {
          hookup: now.hookup,
          clearing: now.clearing,
          makeSafe: () => now.makeSafe,
          hazardsOf: (action: HookupAction) =>
            now.rescue
              ? judgedStep(now.rescue.scene, now.work.job.hookup, action, now.work.rules).hazards
              : [],
        };
        // Mostly as the tool proposes, so that jobs come through: a helped start among them.
        const follows = random() < FOLLOWS_SHARE;
        if (!follows) stage = one(STAGES);
        const next = nextAction(stage, now.work.job, now.work.situation, runs, now.work.job.lastAt);
        const some: readonly EventEntry[] = [
          ['polarity.proved', { signs: ['mark', 'meter'] }],
          [
            'reading.taken',
            { kind: 'rest', volts: one([11.2, 11.8, 12.4]), battery: 0, tempC: 5, source: 'typed' },
          ],
          [
            'reading.taken',
            { kind: 'charging-idle', volts: one([12.4, 13.3, 14.2]), battery: 0, tempC: 5, source: 'typed' },
          ],
          [
            'scene.recorded',
            {
              ambientC: one([-15, 5, 20]),
              place: 'yard',
              sloping: true,
              dark: false,
              enclosed: false,
              mainsNear: true,
            },
          ],
          ['attempt.started', {}],
          [
            'attempt.ended',
            { outcome: one(['started', 'slow', 'clicks'] as const), seconds: 3, lowestVolts: null },
          ],
          ['circumstance.noted', { what: 'casualty-engine-runs', on: random() < 0.5 }],
          [
            'battery.replaced',
            { battery: 0, rating: { chemistry: 'agm', capacityAh: 80, ccaAmps: 800, ccaStandard: 'EN' } },
          ],
          [...(['plan.chosen', planned(one(['donor+heavy', 'lithium@12'])).data] as never)] as EventEntry,
          ['stop.raised', { stop: 'fuel-smell' }],
          ['stop.withdrawn', { stop: 'fuel-smell', reason: 'aired' }],
          ['charge.read', { volts: 14.2, amps: 4, isWarm: random() < 0.2 }],
        ];
        if (follows && next.act === 'go') {
          stage = next.to;
          continue;
        }
        const outcome = random() < 0.6 ? 'started' : one(['slow', 'clicks'] as const);
        const proposed: Partial<Record<typeof next.act, EventEntry>> = {
          crank: ['attempt.started', {}],
          'end-try': ['attempt.ended', { outcome, seconds: 3, lowestVolts: null }],
          'prove-polarity': ['polarity.proved', { signs: ['mark', 'meter'] }],
          'choose-source': ['plan.chosen', planned('donor+heavy').data] as unknown as EventEntry,
          // Under a stop only the verdict is left: it is taken back, so that the job comes further.
          'give-verdict': ['stop.withdrawn', { stop: 'fuel-smell', reason: 'aired' }],
        };
        if (next.act === 'give-verdict') stage = one(STAGES);
        const entry: EventEntry =
          next.act === 'step' || next.act === 'take-off'
            ? entryOf(next.action)
            : ((follows ? proposed[next.act] : null) ?? one(some));
        const made = event(...(entry as ['attempt.started', Record<string, never>]));
        if (refusalInLog(now.events, made, around) === null)
          store.dispatch(JobActions.reported({ event: made }));
        else if (next.act === 'step' || next.act === 'take-off')
          found.add(`refused at ${stage}: ${next.act}`);
      }
      TestBed.resetTestingModule();
    }
    expect([...found]).toEqual([]);
    // Else it would prove nothing of them.
    expect(helpedStarts).toBeGreaterThan(20);
  });
});

/** True where the engine runs by the log alone. */
function runsBy(events: readonly JobEvent[]): boolean {
  let isTried = false;
  let isNoted = false;
  for (const e of events) {
    if (e.type === 'attempt.ended') isTried = e.data.outcome === 'started';
    if (e.type === 'attempt.started') isTried = false;
    if (e.type === 'circumstance.noted' && e.data.what === 'casualty-engine-runs') isNoted = e.data.on;
  }
  return isTried || isNoted;
}

function examine(now: ReturnType<typeof read>, found: Set<string>, seed: number): void {
  const { work, rescue, options } = now;
  const ask = (question: string, isSo: boolean): void => {
    if (!isSo) found.add(`${question} (seed ${seed}, event ${now.events.length})`);
  };
  const runs = runsBy(now.events);
  const results = stageResults(work, rescue);
  ask('runs: situation', work.situation.casualtyRuns === runs);
  ask('runs: rail', results.crank.done === runs);
  ask('runs: circuit', rescue === null || rescue.scene.casualtyRuns === runs);
  ask('runs: folded anew', foldJob(now.events)!.attempts.length === work.job.attempts.length);
  const fitted = now.events.filter((e) => e.type === 'battery.replaced').length > 0 ? 80 : 60;
  ask('battery: work', work.machine.batteries[0]!.rating.capacityAh === fitted);
  ask('battery: circuit', rescue === null || rescue.scene.batteries.beliefs[0]!.rating.capacityAh === fitted);
  const stops = work.situation.stops.length > 0;
  ask('stop: rail', results.scene.stopped === stops);
  if (work.situation.bar)
    ask(
      'bar: nothing fits',
      options.every(({ unfit }) => unfit !== null),
    );
  const advice = ownerAdvice(work.job, work.situation).map(({ id }) => id);
  const isShown = work.job.readings.some((r) => r.kind === 'charging-idle' && r.volts > 13.6);
  ask('drive: owner', !advice.includes('drive-now') || (runs && isShown));
  ask(
    'charge: rail of one thing',
    underCharge(work.job) === null || work.job.plan?.sourceKind === 'mains-charger',
  );
  if (!rescue) return;
  // Make safe takes off everything that is on, and each act is judged in the same circuit.
  const end = now.makeSafe.reduce((state, action) => {
    hazardsOf(rescue.scene, state, action, work.rules);
    return act(state, action);
  }, work.job.hookup);
  ask('make safe: all off', CLAMP_IDS.every((clamp) => end.clamps[clamp] === null) && !end.packOn);
}
