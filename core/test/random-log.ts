import { LIFT_STEPS } from '../src/charging/index.js';
import { CLAMP_IDS } from '../src/circuit/index.js';
import { CHECK_IDS, checkOf, READING_KINDS, STOP_CONDITIONS, SYMPTOMS } from '../src/diagnosis/index.js';
import { ATTEMPT_OUTCOMES } from '../src/crank/index.js';
import { CONFIRMATIONS, FITTING_STEPS, SPARE_POSTS } from '../src/hookup/index.js';
import {
  chargeChoices,
  chargeRecord,
  type EventEntry,
  foldJob,
  type JobEvent,
  lastUndoable,
  PLACE_KINDS,
  planRecord,
  rankForJob,
  refusalInLog,
  type Surroundings,
  REST_REASONS,
} from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import type { Random } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import type { KitItem } from '../src/sources/index.js';
import { VERDICTS } from '../src/verdict/index.js';
import { CAR, KIT } from './fixtures.js';
import { situationIn } from './job-log.js';

const START = Date.parse('2027-01-15T02:40:00.000Z');

/** Something somebody may report, sensible or not: what the door lets in is another question. */
export function anyEntry(
  random: Random,
  machine: Machine,
  kit: readonly KitItem[],
  log: readonly JobEvent[],
): EventEntry {
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const job = foldJob(log)!;
  const volts = (): number =>
    one([-12.3, 0, 0.4, 3, 4.5, 8, 10.5, 11.2, 11.9, 12.4, 12.7, 13.4, 14.2, 15.6, 24.9, 31]);
  const battery = (): number => one([0, 0, 0, 1, 1, 2]);
  const points = [...machine.points, ...CAR.points].map((p) => p.id);
  const point = (): string => one([...points, ...Object.values(SPARE_POSTS), 'nowhere']);
  const makers: readonly (() => EventEntry)[] = [
    () => [
      'scene.recorded',
      {
        ambientC: one([-30, -12, 0, 18, 39]),
        place: one(PLACE_KINDS),
        sloping: false,
        dark: true,
        enclosed: random() < 0.3,
        mainsNear: random() < 0.5,
      },
    ],
    () => ['stop.raised', { stop: one(STOP_CONDITIONS) }],
    () => [
      'stop.withdrawn',
      { stop: one(job.stops.length ? job.stops : STOP_CONDITIONS), reason: one(['', 'seen to']) },
    ],
    () => ['symptom.recorded', { symptom: one(SYMPTOMS) }],
    () => ['note.added', { text: one(['owner waits inside', 'clamp photo promised']) }],
    () => {
      const check = one(CHECK_IDS);
      const { outcomes, edges } = checkOf(check);
      return edges && random() < 0.6
        ? [
            'finding.recorded',
            { check, found: one([-60, -3, -0.3, 0, 0.02, 0.4, 0.9, 3, 11.8, 14.2, 99]), source: 'typed' },
          ]
        : ['finding.recorded', { check, found: one(outcomes) }];
    },
    () => ['polarity.proved', { signs: ['mark', one(['meter', 'mark'] as const)] }],
    () => [
      'reading.taken',
      {
        kind: one(READING_KINDS),
        volts: volts(),
        battery: battery(),
        tempC: one([-30, 0, 25]),
        source: 'typed',
      },
    ],
    () => ['reading.withdrawn', { readingId: job.readings.at(-1)?.eventId ?? 'none' }],
    () => {
      const ranked = rankForJob(situationIn(job, machine, kit));
      const plan = planRecord(one(ranked));
      return plan ? ['plan.chosen', plan] : ['reset.ticked', { reset: 'Clock' }];
    },
    () => {
      const fit = chargeChoices(situationIn(job, machine, kit)).filter(({ unfit }) => !unfit);
      const plan = fit.length > 0 ? chargeRecord(one(fit)) : null;
      return plan ? ['plan.chosen', plan] : ['reset.ticked', { reset: 'Clock' }];
    },
    () => ['latch.tried', { place: one(['key-blade', 'known-wires', 'grille']), opened: one([true, false]) }],
    () => ['van.called', { vanId: one(['van-2', 'van-3']), minutes: one([0, 20, 45, 900]) }],
    () => ['van.arrived', { vanId: one(['van-2', 'van-3']) }],
    () => ['battery.lifted', { battery: one([0, 1, 5]) }],
    () => ['lift.confirmed', { battery: one([0, 1, 5]), step: one(LIFT_STEPS) }],
    () => ['lift.read', { volts: one([2.1, 8.5]), isWarm: random() < 0.2 }],
    () => ['photo.added', { photoId: `photo-${log.length}`, caption: '', showsPerson: random() < 0.5 }],
    () => ['job.supervised', { on: one([true, false]) }],
    () => ['leads.measured', { sourceVolts: 12.9, casualtyVolts: one([11.5, 13]), amps: one([3, 180]) }],
    () => ['charge.read', { volts: 14.2, amps: one([0.2, 6]), isWarm: random() < 0.2 }],
    () => ['step.confirmed', { step: one(CONFIRMATIONS) }],
    () => ['clamp.attached', { clamp: one(CLAMP_IDS), pointId: point() }],
    () => ['clamp.attached', { clamp: one(CLAMP_IDS), pointId: point() }],
    () => ['clamp.detached', { clamp: one(CLAMP_IDS) }],
    () => ['donor.switched', { running: random() < 0.5 }],
    () => ['pack.switched', { on: random() < 0.5 }],
    () => ['plug.moved', { in: random() < 0.5 }],
    () => [
      'donor.parked',
      { xMm: 0, yMm: -3000, turnedDeg: 180, gapMm: one([0, 400]), metresNeeded: one([1.5, 3, 9]) },
    ],
    () => ['attempt.started', {}],
    () => [
      'attempt.ended',
      {
        outcome: one(ATTEMPT_OUTCOMES),
        seconds: one([0, 3, 20]),
        lowestVolts: one([null, 0, 7.5, 10.4]),
        restSeconds: one([0, 90]),
        restFor: one(REST_REASONS),
      },
    ],
    () => [
      'override.given',
      { rule: one(['crankRestSeconds', 'crankTriesMax'] as const), reason: one(['', 'ferry leaves']) },
    ],
    () => ['reset.ticked', { reset: 'Clock' }],
    () => ['fitting.confirmed', { battery: battery(), step: one(FITTING_STEPS) }],
    () => ['battery.replaced', { battery: battery(), rating: machine.batteries[0]!.rating }],
    () => ['battery.found', { battery: battery(), rating: machine.batteries[0]!.rating }],
    () => [
      'rules.adopted',
      { rules: one([{}, { crankTriesMax: 2 }, { firstRed: 'source' }, { crankTriesMax: 99 }]) },
    ],
    () => [
      'verdict.given',
      {
        verdict: one(VERDICTS),
        suspect: null,
        certainty: 'unsure',
        followUps: [{ kind: 'replace', days: 0 }],
      },
    ],
    () => ['job.closed', { note: '' }],
    () => ['follow-up.done', { kind: one(['replace', 'charge'] as const) }],
    () => ['event.undone', { eventId: lastUndoable(log)?.id ?? 'none' }],
    () => ['event.undone', { eventId: log[0]!.id }],
  ];
  // Closing ends nearly everything, so it comes up more rarely than it would.
  const maker = one(makers);
  const entry = maker();
  return entry[0] === 'job.closed' && random() < 0.8 ? one(makers)() : entry;
}

/** A log of what the door lets in of `tries` things that somebody may report. */
export function randomLog(
  random: Random,
  machine: Machine,
  tries: number,
  kit: readonly KitItem[] = KIT,
): JobEvent[] {
  const around: Omit<Surroundings, 'undoable'> = { machine, donor: CAR, kit, rules: DEFAULT_RULES };
  let at = START;
  const made = (...[type, data]: EventEntry): JobEvent => {
    at += Math.floor(random() * 100_000);
    const id = `00000000-0000-4000-8000-${String(Math.floor(random() * 1e12)).padStart(12, '0')}`;
    return { id, jobId: 'job', at: new Date(at).toISOString(), by: 'crew-1', type, data } as JobEvent;
  };
  const log: JobEvent[] = [
    made('job.opened', {
      callId: 'call-1',
      callNumber: 1,
      title: 'T',
      placeName: 'P',
      modelId: machine.id,
      ambientC: -4,
    }),
  ];
  for (let i = 0; i < tries; i++) {
    const event = made(...anyEntry(random, machine, kit, log));
    if (refusalInLog(log, event, around) === null) log.push(event);
  }
  return log;
}
