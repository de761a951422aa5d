import fc from 'fast-check';
import { type Crowd, drawCrowd } from '../src/diagnosis/index.js';
import { hazardsOf, makeSafe, progressOf, replan } from '../src/hookup/index.js';
import {
  applyEvent,
  foldingOnward,
  batteryEntries,
  caseOfJob,
  driveOfJob,
  evidenceOfJob,
  foldJob,
  hookupScene,
  type Job,
  type JobEvent,
  kitCare,
  ordersOfJob,
  plannedOption,
  profileOfJob,
  refusalOf,
  rankForJob,
  reachedStage,
  rulesOfJob,
  sheetOfJob,
  toolsOfKit,
} from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import { seededRandom } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import { conclude } from '../src/verdict/index.js';
import { act } from '../src/hookup/actions.js';
import { anyClampOn } from '../src/hookup/judge/state.js';
import { CAR, EV, KIT, MOTORCYCLE, TRUCK } from './fixtures.js';
import { Log, situationIn } from './job-log.js';
import { randomLog } from './random-log.js';
import { PROVES } from './proof-share.js';
import { sweep } from './sweep.js';

const MACHINES: readonly Machine[] = [CAR, TRUCK, EV, MOTORCYCLE];
const crowds = new Map<Machine, Crowd>();

/** Everything that is worked out from a job, by whoever shows it. */
function everything(job: Job, machine: Machine): void {
  const rules = rulesOfJob(job, DEFAULT_RULES);
  rankForJob(situationIn(job, machine, KIT, rules));
  const option = plannedOption(situationIn(job, machine, KIT, rules), job.plan);
  if (option) {
    const scene = hookupScene(situationIn(job, machine), option);
    const orders = ordersOfJob(situationIn(job, machine, KIT, rules), option, job.plan);
    const { next } = replan(scene, orders.hookup, job.hookup, rules);
    if (next) hazardsOf(scene, job.hookup, next.action, rules);
    const off = makeSafe(scene, job.hookup, rules);
    const safe = off.reduce(act, job.hookup);
    if (anyClampOn(safe) || safe.packOn || safe.pluggedIn || safe.donorRunning)
      throw new Error('make safe leaves something on');
    progressOf(orders.clearing, job.hookup);
  } else if (anyClampOn(job.hookup)) throw new Error('clamps are on and no plan says of what');
  const crowd = crowds.get(machine) ?? drawCrowd(profileOfJob(job, machine), seededRandom(7), 4);
  crowds.set(machine, crowd);
  conclude(crowd, evidenceOfJob(job, machine, 1), caseOfJob(job, machine, 1), toolsOfKit(KIT, true), rules);
  sheetOfJob(job, machine, 1);
  batteryEntries(job, machine);
  driveOfJob(job, situationIn(job, machine, KIT, rules));
  kitCare(job, KIT);
  reachedStage(job);
}

describe('the door of a job', () => {
  const seeds = fc.record({
    seed: fc.integer({ min: 1, max: 1e9 }),
    which: fc.integer({ min: 0, max: MACHINES.length - 1 }),
  });

  sweep('lets in only what can be folded, solved, made safe, judged and put on paper', () => {
    let events = 0;
    fc.assert(
      fc.property(seeds, ({ seed, which }) => {
        const machine = MACHINES[which]!;
        const log = randomLog(seededRandom(seed), machine, 90);
        events += log.length;
        for (let n = 1; n <= log.length; n += 1 + Math.floor(log.length / 6))
          everything(foldJob(log.slice(0, n))!, machine);
        everything(foldJob(log)!, machine);
      }),
      { numRuns: PROVES ? 60 : 12, seed: 5 },
    );
    process.stdout.write(`the door: ${events} events let in over random logs\n`);
    expect(events).toBeGreaterThan(400);
  });

  it('gives one event more what folding the longer log gives, undo included', () => {
    fc.assert(
      fc.property(seeds, ({ seed, which }) => {
        const log = randomLog(seededRandom(seed), MACHINES[which]!, 70);
        let job: Job | null = null;
        log.forEach((event, n) => {
          job = applyEvent(job, event, () => log.slice(0, n));
          expect(job).toEqual(foldJob(log.slice(0, n + 1)));
        });
      }),
      { numRuns: 40, seed: 6 },
    );
  });

  it('gives the same to a screen that folds on from what it had, whatever log it is given next', () => {
    let onward = 0;
    fc.assert(
      fc.property(seeds, ({ seed, which }) => {
        const random = seededRandom(seed);
        const logs = [1, 2].map(() => randomLog(random, MACHINES[which]!, 40));
        const fold = foldingOnward();
        const ends = [0, 0];
        for (let turn = 0; turn < 25; turn++) {
          // Mostly on by some events, sometimes back, sometimes another job, sometimes one event told anew by the server.
          const at = random() < 0.9 ? 0 : 1;
          const log = logs[at]!;
          ends[at] =
            random() < 0.8
              ? Math.min(log.length, ends[at]! + Math.floor(random() * 4))
              : Math.floor(random() * log.length);
          const events = log.slice(0, ends[at]);
          if (random() < 0.2 && events.length > 1) {
            const told = Math.floor(random() * events.length);
            events[told] = { ...events[told]!, heardAt: '2027-01-15T02:00:00.000Z' };
          } else onward++;
          expect(fold(events)).toEqual(foldJob(events));
        }
      }),
      { numRuns: 40, seed: 8 },
    );
    expect(onward).toBeGreaterThan(500);
  });

  it('keeps a job the same through a snapshot of it', () => {
    fc.assert(
      fc.property(seeds, ({ seed, which }) => {
        const log = randomLog(seededRandom(seed), MACHINES[which]!, 60);
        const half = Math.ceil(log.length / 2);
        const kept = JSON.parse(JSON.stringify(foldJob(log.slice(0, half)))) as Job;
        const on = log
          .slice(half)
          .reduce<Job | null>((job, event, i) => applyEvent(job, event, () => log.slice(0, half + i)), kept);
        expect(on).toEqual(foldJob(log));
      }),
      { numRuns: 40, seed: 7 },
    );
  });

  it('folds once for an undo, however long the log', () => {
    const log = new Log();
    for (let i = 0; i < 40; i++) log.take('symptom.recorded', { symptom: 'silence' });
    let asked = 0;
    const before = log.events.slice();
    const undo = log.make('event.undone', { eventId: before.at(-1)!.id });
    const job = applyEvent(foldJob(before), undo, () => {
      asked++;
      return before;
    });
    expect(asked).toBe(1);
    expect(job!.symptoms).toEqual(['silence']);
    applyEvent(foldJob(before), log.make('symptom.recorded', { symptom: 'silence' }), () => {
      asked++;
      return before;
    });
    expect(asked).toBe(1);
  });

  it('refuses a battery, a point, a clamp and a source that are not there', () => {
    const log = new Log();
    const rest = (battery: number) =>
      ({ kind: 'rest', volts: 12, battery, tempC: 0, source: 'typed' }) as const;
    expect(log.refuses('reading.taken', rest(1))).toBe('no-such-battery');
    expect(new Log(TRUCK).refuses('reading.taken', rest(1))).toBeNull();
    expect(log.refuses('fitting.confirmed', { battery: 1, step: 'all-off' })).toBe('no-such-battery');
    expect(log.refuses('battery.replaced', { battery: 1, rating: CAR.batteries[0]!.rating })).toBe(
      'no-such-battery',
    );
    const plan = {
      optionId: 'lithium@12',
      sourceId: 'lithium',
      leadSetId: null,
      sourceKind: 'lithium-pack',
      outlook: 'cranks',
      odds: null,
      starterVolts: null,
      starterAmps: null,
      rpm: null,
      neededRpm: null,
      wakeVolts: null,
      postVolts: null,
      waitMinutes: 0,
      chargeOnly: false,
      inputs: [],
    } as const;
    expect(log.refuses('plan.chosen', { ...plan, sourceId: 'of-another-van' })).toBe('not-in-kit');
    expect(log.refuses('plan.chosen', { ...plan, leadSetId: 'lithium' })).toBe('not-in-kit');
    log.take('plan.chosen', plan);
    log.take('polarity.proved', { signs: ['mark', 'meter'] });
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'nowhere' })).toBe('no-such-point');
    expect(log.refuses('clamp.attached', { clamp: 'redSource', pointId: 'plus' })).toBe('not-in-hand');
    expect(log.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' })).toBeNull();
    const latch = {
      ...CAR,
      points: [...CAR.points, { ...CAR.points[0]!, id: 'latch', kind: 'latch-wire-positive' as const }],
    };
    const wired = new Log(latch);
    wired.take('plan.chosen', plan);
    wired.take('polarity.proved', { signs: ['mark', 'meter'] });
    expect(wired.refuses('clamp.attached', { clamp: 'redCasualty', pointId: 'latch' })).toBe('no-such-point');
  });
});

describe('the rules of a job', () => {
  it('are those it was opened with, until it takes others on', () => {
    const log = new Log();
    const opened = { ...log.events[0]!, data: { ...log.job.call, rules: { crankTriesMax: 2 } } } as JobEvent;
    const job = foldJob([opened])!;
    expect(rulesOfJob(job, { ...DEFAULT_RULES, crankTriesMax: 9 }).crankTriesMax).toBe(2);
    expect(rulesOfJob(job, DEFAULT_RULES).crankRestSeconds).toBe(DEFAULT_RULES.crankRestSeconds);
    const adopted = foldJob([opened, log.make('rules.adopted', { rules: { crankTriesMax: 5 } })])!;
    expect(rulesOfJob(adopted, DEFAULT_RULES).crankTriesMax).toBe(5);
    expect(rulesOfJob(log.job, { ...DEFAULT_RULES, crankTriesMax: 7 }).crankTriesMax).toBe(7);
    expect(log.refuses('rules.adopted', { rules: { crankTriesMax: 99 } })).toBe('value-out-of-range');
  });
});

describe('what a reading was taken under', () => {
  it('is kept with it: clamps, what ran, what cranked', () => {
    const log = new Log();
    const rest = { kind: 'rest', volts: 12.4, battery: 0, tempC: 0, source: 'typed' } as const;
    log.take('reading.taken', rest);
    log.take('attempt.started', {});
    log.take('reading.taken', { ...rest, kind: 'crank-minimum', volts: 9.9 });
    log.take('attempt.ended', { outcome: 'started', seconds: 2, lowestVolts: 9.9 });
    log.take('finding.recorded', { check: 'recovery', found: 12.3, source: 'meter' });
    const [still, cranking] = log.job.readings;
    expect(still!.during.cranking).toBeFalse();
    expect(still!.during.casualtyRunning).toBeFalse();
    expect(Object.values(still!.during.clamps).every((at) => at === null)).toBeTrue();
    expect(cranking!.during.cranking).toBeTrue();
    expect(log.job.figures[0]!.during.casualtyRunning).toBeTrue();
  });
});

describe('rest between tries', () => {
  const heard = (event: JobEvent, seconds: number): JobEvent => ({
    ...event,
    heardAt: new Date(Date.parse('2027-01-15T03:00:00.000Z') + seconds * 1000).toISOString(),
  });

  it('is timed by the server’s clock, whatever the device’s says', () => {
    const log = new Log();
    const opened = heard(log.events[0]!, 0);
    const started = heard(log.make('attempt.started', {}), 60);
    const ended = heard(log.make('attempt.ended', { outcome: 'slow', seconds: 8, lowestVolts: null }), 68);
    const events = [opened, started, ended];
    const again = (deviceHoursOff: number, seconds: number) => {
      const next = heard(log.make('attempt.started', {}, deviceHoursOff * 3600), seconds);
      const undoable = () => null;
      return refusalOf(foldJob(events), next, { ...log.around, undoable });
    };
    for (const hours of [-5, 0, 5]) {
      expect(again(hours, 80)).withContext(`${hours} h`).toBe('rest-first');
      expect(again(hours, 130)).withContext(`${hours} h`).toBeNull();
    }
  });
});
