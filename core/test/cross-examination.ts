import type { BatteryRating } from '../src/battery/index.js';
import { CHECK_IDS, isWhole, POLARITY_SIGNS_NEEDED, REPAIR_KINDS } from '../src/diagnosis/index.js';
import type { AttemptOutcome } from '../src/crank/index.js';
import { anyClampOn, hazardsOf, type HookupAction, isToBeCleared } from '../src/hookup/index.js';
import {
  chargeChoices,
  chargePlanOfJob,
  caseOfJob,
  chargeRecord,
  clearingRunOf,
  driveOfJob,
  entryOf,
  type EventEntry,
  foldJob,
  hookupRunOf,
  type Job,
  type JobEvent,
  lastUndoable,
  makeSafeOf,
  nextAction,
  type NextAction,
  notHere,
  ownerAdvice,
  planCases,
  type PlannedRescue,
  plannedRescue,
  profileOfJob,
  rankForJob,
  reachedStage,
  readingsOf,
  refusalInLog,
  roadOfJob,
  rollingOfJob,
  type Runs,
  rulesOfJob,
  sheetOfJob,
  type Situation,
  situationOf,
  stopsInForce,
  type Stage,
  STAGES,
  underCharge,
  waysInput,
} from '../src/job/index.js';
import type { Machine } from '../src/machine/index.js';
import type { Random } from '../src/quantities/index.js';
import { DEFAULT_RULES } from '../src/rules/index.js';
import type { KitItem } from '../src/sources/index.js';
import { CAR, KIT, ratedEn } from './fixtures.js';
import { anyEntry } from './random-log.js';

const START = Date.parse('2027-01-15T02:40:00.000Z');
/** A battery that no model of the tests has: whoever answers from the atlas is found out. */
const OTHER_BATTERY: BatteryRating = ratedEn('agm', 80, 800);

/** One disagreement between two readers of a job. */
export interface Disagreement {
  readonly question: string;
  readonly said: string;
}

/** The truth of a job by its log alone, worked out apart from everything that is examined. */
interface Truth {
  readonly runs: boolean;
  readonly ratings: readonly BatteryRating[];
  /** The batteries that sat there when the crew came. */
  readonly asFound: readonly BatteryRating[];
  readonly isRunningTry: boolean;
  readonly stops: ReadonlySet<string>;
  /** A charge to be off before any crank is over, and nobody has read what it did. */
  readonly isChargeUnread: boolean;
  /** Charging volts read last with no clamp on, since anything was mended; null where not read. */
  readonly chargingVolts: number | null;
}

/** Reads the truth off the events that were not taken back. */
export function truthOf(log: readonly JobEvent[], machine: Machine): Truth {
  const undone = new Set(log.flatMap((e) => (e.type === 'event.undone' ? e.data.eventId : [])));
  const stand = log.filter((e) => !undone.has(e.id));
  const withdrawn = new Set(stand.flatMap((e) => (e.type === 'reading.withdrawn' ? e.data.readingId : [])));
  const events = stand.filter((e) => !withdrawn.has(e.id));
  let tried: AttemptOutcome | null | 'under-way' = null;
  let isNoted = false;
  let chargeOnly = false;
  let isPlugged = false;
  let isChargeUnread = false;
  let chargingVolts: number | null = null;
  const stops = new Set<string>();
  const clampsOn = new Set<string>();
  const asFound = machine.batteries.map(({ rating }) => rating);
  const fitted: (BatteryRating | undefined)[] = [];
  for (const event of events)
    switch (event.type) {
      case 'job.opened':
        event.data.fitted?.forEach((rating, i) => (asFound[i] = rating));
        break;
      case 'attempt.started':
        tried = 'under-way';
        break;
      case 'attempt.ended':
        tried = event.data.outcome;
        break;
      case 'roll.tried':
        tried = event.data.started ? 'started' : 'nothing';
        break;
      case 'circumstance.noted':
        if (event.data.what === 'casualty-engine-runs') isNoted = event.data.on;
        break;
      case 'battery.found':
        asFound[event.data.battery] = event.data.rating;
        break;
      case 'battery.replaced':
        fitted[event.data.battery] = event.data.rating;
        break;
      case 'stop.raised':
        stops.add(event.data.stop);
        break;
      case 'stop.withdrawn':
        stops.delete(event.data.stop);
        break;
      case 'lift.read':
      case 'charge.read':
        if (event.data.isWarm) stops.add('case-warm');
        break;
      case 'plan.chosen':
        chargeOnly = event.data.chargeOnly && event.data.sourceKind === 'mains-charger';
        isPlugged = false;
        break;
      case 'pack.switched':
        if (event.data.on) isPlugged = chargeOnly;
        else if (isPlugged) [isChargeUnread, isPlugged] = [true, false];
        break;
      case 'reading.taken':
        if (event.data.kind === 'rest') isChargeUnread = false;
        if (event.data.kind.startsWith('charging') && clampsOn.size === 0) chargingVolts = event.data.volts;
        break;
      case 'clamp.attached':
        clampsOn.add(event.data.clamp);
        break;
      case 'clamp.detached':
        clampsOn.delete(event.data.clamp);
        break;
      case 'repair.made':
        if (event.data.kind === 'belt-tightened') chargingVolts = null;
        break;
      default:
    }
  return {
    runs: tried === 'started' || isNoted,
    isRunningTry: tried === 'under-way',
    ratings: asFound.map((rating, i) => fitted[i] ?? rating),
    asFound,
    stops,
    isChargeUnread,
    chargingVolts,
  };
}

/** Everything of one job that is examined, as the screens have it. */
export interface Examined {
  readonly job: Job;
  readonly log: readonly JobEvent[];
  readonly situation: Situation;
  readonly rescue: PlannedRescue | null;
  readonly runs: Runs;
  readonly at: string;
}

export function examinedOf(log: readonly JobEvent[], machine: Machine, kit: readonly KitItem[]): Examined {
  const job = foldJob(log)!;
  const rules = rulesOfJob(job, DEFAULT_RULES);
  const situation = situationOf(readingsOf(job), { machine, donor: CAR, kit, earlierFlatCalls: 0 }, rules);
  const rescue = plannedRescue(situation, job.plan);
  const runs = {
    hookup: hookupRunOf(job, rescue, situation),
    clearing: clearingRunOf(job, rescue),
    makeSafe: () => makeSafeOf(job, rescue, situation),
    hazardsOf: (action: HookupAction) => (rescue ? hazardsOf(rescue.scene, job.hookup, action, rules) : []),
  };
  return { job, log, situation, rescue, runs, at: job.lastAt };
}

const around = (machine: Machine, kit: readonly KitItem[]) => ({
  machine,
  donor: CAR,
  kit,
  rules: DEFAULT_RULES,
});

function eventAt(at: string, n: number, ...[type, data]: EventEntry): JobEvent {
  const id = `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
  return { id, jobId: 'job', at, by: 'crew-1', type, data } as JobEvent;
}

/** Why the door would not take what an action would report; null where it takes it, or nothing is reported. */
function refusedAction(
  { log, at }: Examined,
  action: NextAction,
  machine: Machine,
  kit: readonly KitItem[],
): string | null {
  const entry: EventEntry | null =
    action.act === 'crank'
      ? ['attempt.started', {}]
      : action.act === 'step' || action.act === 'take-off' || action.act === 'say-why'
        ? entryOf(action.action)
        : action.act === 'give-verdict'
          ? ['verdict.given', { verdict: 'not-known', suspect: null, certainty: 'unsure', followUps: [] }]
          : action.act === 'close'
            ? ['job.closed', { note: '' }]
            : null;
  return entry && refusalInLog(log, eventAt(at, 999_999_999, ...entry), around(machine, kit));
}

/** Asks every reader of a job the same questions, and returns where two answers differ. */
export function crossExamine(
  examined: Examined,
  machine: Machine,
  kit: readonly KitItem[] = KIT,
): Disagreement[] {
  const { job, log, situation, rescue, runs, at } = examined;
  const truth = truthOf(log, machine);
  const found: Disagreement[] = [];
  const ask = (question: string, isSo: boolean, said: () => unknown = () => ''): void => {
    if (!isSo) found.push({ question, said: JSON.stringify(said()) });
  };

  // Does the casualty's engine run?
  ask('runs: situation', situation.casualtyRuns === truth.runs, () => truth);
  if (rescue) ask('runs: the circuit', rescue.scene.casualtyRuns === truth.runs);
  // What volts now?
  if (rescue && truth.chargingVolts !== null)
    ask(
      'volts: the circuit of a running engine',
      rescue.scene.alternatorVolts === truth.chargingVolts,
      () => [rescue.scene.alternatorVolts, truth.chargingVolts],
    );
  ask('runs: no rolling start', !truth.runs || !rollingOfJob(job, situation).allowed);
  const road = roadOfJob(job, situation);
  ask('runs: no road for what stands', truth.runs || road === null);
  const advice = ownerAdvice(job, situation).map(({ id }) => id);
  ask('drive: only where charging was shown', !advice.includes('drive-now') || road?.kind === 'drive');
  ask(
    'drive: shown by a reading',
    road?.kind !== 'drive' || job.readings.some((r) => r.kind.startsWith('charging')),
  );

  // Which battery is fitted?
  const ratings = situation.machine.batteries.map(({ rating }) => rating);
  if (job.modelId === job.call.modelId) {
    ask('battery: situation', JSON.stringify(ratings) === JSON.stringify(truth.ratings), () => ratings);
    const onSheet = sheetOfJob(job, machine, 0).machine.batteries;
    ask('battery: sheet', onSheet[0]!.capacityAh === truth.asFound[0]!.capacityAh);
    ask('battery: diagnosis', profileOfJob(job, machine).rating.capacityAh === truth.asFound[0]!.capacityAh);
  }
  ratings.forEach((rating, i) => {
    const plan = chargePlanOfJob(situation, i);
    ask('battery: charge plan', plan.chemistry === rating.chemistry);
    ask(
      'amps: a tenth of what is fitted',
      rating.chemistry === 'capacitor' || plan.amps <= rating.capacityAh / 5,
    );
  });
  if (rescue) ask('battery: the circuit', rescue.scene.batteries.beliefs[0]!.rating === ratings[0]);

  // May this battery be charged, cranked on, joined?
  const ranked = rankForJob(situation);
  const choices = chargeChoices(situation);
  const isStopped = situation.stops.length > 0;
  ask(
    'stops: those of the log stand',
    [...truth.stops].every((s) => situation.stops.includes(s as never)),
  );
  const stopsOf = (stops: readonly string[]): string => [...stops].sort().join();
  for (const [reader, stops] of [
    ['verdict', caseOfJob(job, machine, 0).stops],
    ['sheet', sheetOfJob(job, machine, 0).stops],
    ['door', stopsInForce(job, machine)],
  ] as const)
    ask(`stops: ${reader}`, stopsOf(stops) === stopsOf(situation.stops), () => [stops, situation.stops]);
  if (situation.bar) {
    ask('bar: it is a stop', isStopped);
    ask(
      'bar: no source fits',
      ranked.every(({ unfit }) => unfit?.code === 'battery-bar'),
    );
    ask(
      'bar: no charger is put on',
      choices.every(({ unfit }) => unfit !== null),
    );
    ask('bar: no ways', waysInput(job, situation, ranked, planCases(situation, ranked), at) === null);
  }
  if (isStopped) {
    ask(
      'stop: no charger is put on',
      choices.every(({ unfit }) => unfit !== null),
    );
    ask('stop: no rolling start', !rollingOfJob(job, situation).allowed);
    const crank = refusalInLog(log, eventAt(at, 1, 'attempt.started', {}), around(machine, kit));
    ask('stop: the door takes no try', crank !== null);
  }

  // At how many amps, and for how long?
  for (const choice of choices) {
    const plan = chargePlanOfJob(situation, choice.battery);
    const charger = plan.chargers.find(({ kitId }) => kitId === choice.option.sourceId);
    ask('amps: charger in both lists', charger?.amps === choice.amps, () => [charger?.amps, choice.amps]);
    ask('amps: as the circuit has them', choice.option.source.alternator!.maxAmps === choice.amps);
    ask('hours: charger in both lists', choice.hours === null || charger?.hours === choice.hours);
    ask('unfit: charger in both lists', charger?.unfit == null || choice.unfit !== null);
    const record = chargeRecord(choice);
    ask('hours: as recorded', record === null || record.waitMinutes === Math.round(choice.hours! * 60));
  }
  const charge = underCharge(job);
  if (charge) {
    const minutes = (Date.parse(charge.dueAt) - Date.parse(charge.since)) / 60_000;
    ask('hours: as planned', Math.abs(minutes - job.plan!.waitMinutes) < 0.01);
    ask('charge: a charger is on', job.plan!.sourceKind === 'mains-charger' && job.hookup.packOn);
  }

  // Does this source fit? Never both in the list and under "not here".
  const fitting = new Set(ranked.flatMap(({ option, unfit }) => (unfit ? [] : option.sourceId)));
  ask(
    'fits: in one list',
    notHere(ranked).every(({ option }) => !fitting.has(option.sourceId)),
  );
  ask(
    'fits: every source in one of them',
    new Set([...fitting, ...notHere(ranked).map(({ option }) => option.sourceId)]).size ===
      new Set(ranked.map(({ option }) => option.sourceId)).size,
  );

  // Is the next action possible?
  for (const stage of STAGES) {
    const action = nextAction(stage, job, situation, runs, at);
    const told = (): unknown => ({ stage, action });
    const refusal = refusedAction(examined, action, machine, kit);
    ask('next: the door takes it', refusal === null, () => ({ stage, action, refusal }));
    const to = action.act === 'go' ? action.to : null;
    ask('next: leads away', to !== stage, told);
    const mayUnderStop: readonly NextAction['act'][] = [
      'take-off',
      'give-verdict',
      'close',
      'to-board',
      'end-try',
    ];
    if (isStopped && job.closedAt === null)
      ask(
        'next: nothing goes on under a stop',
        mayUnderStop.includes(action.act) || to === 'verdict' || (to === 'crank' && truth.isRunningTry),
        told,
      );
    if (truth.runs && job.closedAt === null && !truth.isRunningTry)
      ask('next: no plan and no crank while it runs', to !== 'plan' && action.act !== 'crank', told);
    if (action.act === 'crank')
      ask('next: no crank on a charge or after one that is unread', !charge && !truth.isChargeUnread, told);
    if (action.act === 'step' && stage === 'hookup' && rescue) {
      const severe = hazardsOf(rescue.scene, job.hookup, action.action, situation.rules).filter(
        ({ severity, code }) => severity === 'severe' && !(job.accepted ?? []).includes(code),
      );
      const isOn = action.action.kind === 'attach' || (action.action.kind === 'pack' && action.action.on);
      const known = ['dead-short', 'reversed', 'over-voltage'];
      ask(
        'next: no plain yes under a red stop',
        !isOn || severe.every(({ code }) => known.includes(code) && job.accepted !== undefined),
        () => ({ action, severe }),
      );
    }
    if (action.act === 'step' && stage === 'hookup')
      ask('next: no clamp before polarity', job.polaritySigns.length >= POLARITY_SIGNS_NEEDED, told);
    if (action.act === 'step' || action.act === 'take-off')
      ask('next: a step of what is planned', rescue !== null, told);
  }
  ask(
    'make safe: something on has a way off',
    !rescue || runs.makeSafe().length > 0 || !isToBeCleared(job.hookup),
  );
  ask('reached: a stage', STAGES.includes(reachedStage(job)));
  ask('drive: an engine alone', driveOfJob(job, situation) === null || machine.engine !== null);
  return found;
}

/** Something that somebody does: what the tool offers at a stage, or anything at all. */
function someEntry(
  random: Random,
  machine: Machine,
  kit: readonly KitItem[],
  examined: Examined,
): EventEntry {
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const { job, situation, runs, at, log } = examined;
  const repair = { kind: one(REPAIR_KINDS), side: 'plus', check: one(CHECK_IDS) } as never;
  const more: readonly (() => EventEntry | null)[] = [
    () => (isWhole(repair) ? ['repair.made', repair] : null),
    () => ['roll.tried', { started: random() < 0.5 }],
    () => ['circumstance.noted', { what: 'casualty-engine-runs', on: random() < 0.6 }],
    () => ['battery.replaced', { battery: 0, rating: OTHER_BATTERY }],
    () => ['battery.found', { battery: 0, rating: OTHER_BATTERY }],
    () => {
      const fit = chargeChoices(situation).filter(({ unfit }) => !unfit);
      const plan = fit.length > 0 ? chargeRecord(one(fit)) : null;
      return plan && ['plan.chosen', plan];
    },
    () => [
      'rules.adopted',
      { rules: one([{}, { clampSequence: 'source-first' }, { chargeOnVehicle: 'negative-off' }]) },
    ],
    () => {
      const undoable = lastUndoable(log);
      return undoable && ['event.undone', { eventId: undoable.id }];
    },
  ];
  if (random() < 0.15) return one(more)() ?? anyEntry(random, machine, kit, log);
  if (random() < 0.35) return anyEntry(random, machine, kit, log);
  const stage: Stage = anyClampOn(job.hookup) ? one(['hookup', 'crank', 'cleardown']) : one(STAGES);
  const action = nextAction(stage, job, situation, runs, at);
  switch (action.act) {
    case 'step':
    case 'take-off':
      return entryOf(action.action);
    case 'say-why':
      return [
        'override.given',
        { rule: 'severe-hazard', reason: 'ferry leaves', hazard: action.hazard.code },
      ];
    case 'crank':
      return ['attempt.started', {}];
    case 'end-try':
      return [
        'attempt.ended',
        {
          outcome: one(['started', 'slow', 'clicks'] as const),
          seconds: 4,
          lowestVolts: one([null, 8.2, 10.4]),
        },
      ];
    case 'prove-polarity':
      return ['polarity.proved', { signs: ['mark', 'meter'] }];
    default:
      return anyEntry(random, machine, kit, log);
  }
}

/** Plays a job of so many events that the door lets in, and hands each state to be examined. */
export function playJob(
  random: Random,
  machine: Machine,
  tries: number,
  examine: (examined: Examined) => void,
  kit: readonly KitItem[] = KIT,
): JobEvent[] {
  let at = START;
  const next = (...entry: EventEntry): JobEvent => {
    at += Math.floor(random() * 200_000);
    return eventAt(new Date(at).toISOString(), Math.floor(random() * 1e9), ...entry);
  };
  const fitted = random() < 0.3 ? { fitted: machine.batteries.map(() => OTHER_BATTERY) } : {};
  const log: JobEvent[] = [
    next('job.opened', {
      ...{ callId: 'call-1', callNumber: 1, title: 'T', placeName: 'P' },
      ...{ modelId: machine.id, ambientC: random() < 0.3 ? -15 : 4 },
      ...fitted,
    }),
  ];
  let examined = examinedOf(log, machine, kit);
  for (let i = 0; i < tries; i++) {
    const event = next(...someEntry(random, machine, kit, examined));
    if (refusalInLog(log, event, around(machine, kit)) !== null) continue;
    log.push(event);
    examined = examinedOf(log, machine, kit);
    examine(examined);
  }
  return log;
}
