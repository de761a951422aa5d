import { type CheckId, shownBy, type StopCondition } from '../diagnosis/index.js';
import { act, anyClampOn, clampsInHand, type HookupState, NOTHING_CONNECTED } from '../hookup/index.js';
import { hasSwitch } from '../plan/index.js';
import { DEFAULT_RULES, rulesWith } from '../rules/index.js';
import type { JobEvent } from './events.js';
import { actionOf } from './hands.js';
import type { Attempt, Job, VanAsked } from './job.js';
import { circumstancesOf, workingTempC } from './queries.js';

/**
 * A job after one more event: the one reducer of the product. Pure; the web store and the server both use it.
 *
 * An undo goes back past what a job holds, so it is the one event that needs the log before it: one fold of what is left.
 *
 * @param job the job so far; null before it is opened
 * @param log the events before this one, oldest first; looked at for an undo alone
 * @returns null while no event has opened the job
 * @example
 * let job: Job | null = null;
 * for (const event of events) job = applyEvent(job, event, () => events.slice(0, events.indexOf(event)));
 */
export function applyEvent(job: Job | null, event: JobEvent, log: () => readonly JobEvent[]): Job | null {
  if (!job) return event.type === 'job.opened' ? opened(event) : null;
  const revision = job.revision + 1;
  if (event.type !== 'event.undone') return { ...apply(job, event), revision, lastAt: timeOf(event) };
  const left = foldJob([...log(), event]);
  return left && { ...left, revision };
}

/**
 * A job from its whole log: `applyEvent` one event after the other, without those that a later one took back.
 *
 * @param events one job's events, oldest first, beginning with `job.opened`
 * @returns null for a log that has not been opened
 */
export function foldJob(events: readonly JobEvent[]): Job | null {
  const undone = undoneIds(events);
  let job: Job | null = null;
  let before = 0;
  for (const event of events) {
    if (!job) {
      if (event.type === 'job.opened') job = opened(event);
      else before++;
    } else if (!undone.has(event.id) && event.type !== 'event.undone') job = apply(job, event);
  }
  return job && { ...job, revision: events.length - before, lastAt: timeOf(events.at(-1)!) };
}

/**
 * When an event happened, ISO 8601: by the server's clock once it has heard of it, since the clock of a device may be set ahead or back and
 * must not shorten a rest.
 */
export function timeOf({ at, heardAt }: Pick<JobEvent, 'at' | 'heardAt'>): string {
  return heardAt ?? at;
}

/** The moment after another, ISO 8601: a millisecond, the least that a log tells apart. */
export function momentAfter(at: string): string {
  return new Date(Date.parse(at) + 1).toISOString();
}

/** Ids of events that a later event took back. */
export function undoneIds(events: readonly JobEvent[]): ReadonlySet<string> {
  const ids = new Set<string>();
  for (const event of events) if (event.type === 'event.undone') ids.add(event.data.eventId);
  return ids;
}

function opened(event: Extract<JobEvent, { type: 'job.opened' }>): Job {
  return {
    id: event.jobId,
    openedAt: timeOf(event),
    openedBy: event.by,
    call: event.data,
    scene: null,
    stops: [],
    symptoms: [],
    findings: {},
    figures: [],
    repairs: [],
    modelId: event.data.modelId,
    parked: null,
    polaritySigns: [],
    readings: [],
    plan: null,
    hookup: NOTHING_CONNECTED,
    lastActAt: null,
    chargesSince: null,
    charged: null,
    joinedSince: null,
    joins: [],
    lifts: [],
    chargeReadings: [],
    leadReadings: [],
    everConnected: false,
    attempts: [],
    triesSinceChecks: 0,
    resets: [],
    overrides: [],
    verdict: null,
    fitting: [],
    replaced: [],
    followedUp: [],
    recheck: null,
    closedAt: null,
    rules: event.data.rules ? rulesWith(event.data.rules, DEFAULT_RULES) : null,
    revision: 1,
    lastAt: timeOf(event),
  };
}

function apply(job: Job, event: JobEvent): Job {
  switch (event.type) {
    case 'job.opened':
    case 'event.undone':
      return job;
    case 'scene.recorded':
      return { ...job, scene: event.data };
    case 'stop.raised':
      return { ...job, stops: withStop(job.stops, event.data.stop) };
    case 'stop.withdrawn': {
      const stops = job.stops.filter((s) => s !== event.data.stop);
      return event.data.stop === 'frozen' ? { ...thawed(job, timeOf(event)), stops } : { ...job, stops };
    }
    case 'symptom.recorded':
      return { ...job, symptoms: toggled(job.symptoms, event.data.symptom) };
    case 'finding.recorded': {
      const { check, found, source, figures = [], battery = null } = event.data;
      const during = circumstancesOf(job);
      const figure = source && {
        eventId: event.id,
        at: timeOf(event),
        check,
        found,
        source,
        figures,
        battery,
        during,
      };
      return {
        ...job,
        findings: { ...job.findings, [check]: found },
        figures: figure ? [...job.figures, figure] : job.figures,
        triesSinceChecks: 0,
      };
    }
    case 'finding.withdrawn':
      return { ...job, findings: without(job.findings, [event.data.check]) };
    case 'repair.made':
      return {
        ...job,
        repairs: [...job.repairs, { ...event.data, at: timeOf(event), found: job.findings }],
        findings: without(job.findings, shownBy(event.data)),
        triesSinceChecks: 0,
      };
    case 'model.identified':
      // Points, polarity, parking and plan were another machine's.
      return { ...job, modelId: event.data.modelId, parked: null, polaritySigns: [], plan: null };
    case 'donor.parked':
      return { ...job, parked: event.data };
    case 'polarity.proved':
      return { ...job, polaritySigns: event.data.signs };
    case 'reading.taken': {
      const { kind, volts, battery, tempC, source, strength = null } = event.data;
      const during = circumstancesOf(job);
      const reading = {
        eventId: event.id,
        at: timeOf(event),
        kind,
        volts,
        battery,
        tempC,
        source,
        strength,
        during,
      };
      return { ...job, readings: [...job.readings, reading] };
    }
    case 'reading.withdrawn':
      return { ...job, readings: job.readings.filter((r) => r.eventId !== event.data.readingId) };
    case 'plan.chosen': {
      const { accepted: _accepted, ...others } = job;
      return { ...others, plan: event.data };
    }
    case 'step.confirmed':
    case 'clamp.attached':
    case 'clamp.detached':
    case 'donor.switched':
    case 'pack.switched':
    case 'plug.moved':
    case 'circumstance.noted': {
      const hookup = act(job.hookup, actionOf(event));
      return {
        ...job,
        hookup,
        lastActAt: timeOf(event),
        ...chargeAfter(job, event),
        ...joinAfter(job, isJoined(hookup, job.plan), timeOf(event)),
        everConnected: job.everConnected || event.type === 'clamp.attached',
      };
    }
    case 'latch.tried':
      return { ...job, latches: [...(job.latches ?? []), { ...event.data, at: timeOf(event) }] };
    case 'van.called': {
      const { vanId, minutes } = event.data;
      const asked: VanAsked = { vanId, minutes, calledAt: timeOf(event), arrivedAt: null };
      return { ...job, vans: [...(job.vans ?? []), asked] };
    }
    case 'van.arrived': {
      const { vanId } = event.data;
      const asked = job.vans?.find((v) => v.vanId === vanId) ?? { vanId, minutes: null, calledAt: null };
      const others = (job.vans ?? []).filter((v) => v.vanId !== vanId);
      return { ...job, vans: [...others, { ...asked, arrivedAt: timeOf(event) }] };
    }
    case 'battery.lifted':
      return { ...job, lifts: [...job.lifts, { battery: event.data.battery, at: timeOf(event) }] };
    case 'charge.read': {
      const reading = { ...event.data, at: timeOf(event) };
      // A case that warms on charge is a stop, whoever saw it.
      const stops = reading.isWarm ? withStop(job.stops, 'case-warm') : job.stops;
      return { ...job, stops, chargeReadings: [...job.chargeReadings, reading] };
    }
    case 'leads.measured': {
      const { leadSetId } = job.plan!;
      const reading = { ...event.data, at: timeOf(event), leadSetId: leadSetId! };
      return { ...job, leadReadings: [...job.leadReadings, reading] };
    }
    case 'attempt.started': {
      const helper = anyClampOn(job.hookup) ? job.plan : null;
      return {
        ...job,
        triesSinceChecks: job.triesSinceChecks + 1,
        attempts: [
          ...job.attempts,
          {
            ...tried(timeOf(event), workingTempC(job)),
            helped: anyClampOn(job.hookup),
            sourceId: helper?.sourceId ?? null,
            starterAmps: helper?.starterAmps ?? null,
            optionId: helper?.optionId ?? null,
            waitedMinutes: minutesBetween(job.chargesSince, timeOf(event)),
          },
        ],
      };
    }
    case 'attempt.ended': {
      const { outcome, seconds, lowestVolts, restSeconds = 0, restFor = 'rule' } = event.data;
      return {
        ...job,
        ...(outcome === 'started' && joinAfter(job, false, timeOf(event))),
        attempts: job.attempts.map((a, i) =>
          i === job.attempts.length - 1
            ? { ...a, endedAt: timeOf(event), outcome, seconds, lowestVolts, restSeconds, restFor }
            : a,
        ),
      };
    }
    case 'roll.tried':
      return {
        ...job,
        attempts: [
          ...job.attempts,
          {
            ...tried(timeOf(event), workingTempC(job)),
            endedAt: timeOf(event),
            outcome: event.data.started ? 'started' : 'nothing',
            seconds: 0,
            rolled: true,
          },
        ],
      };
    case 'reset.ticked':
      return { ...job, resets: toggled(job.resets, event.data.reset) };
    case 'override.given':
      return {
        ...job,
        overrides: [...job.overrides, { ...event.data, at: timeOf(event) }],
        ...(event.data.hazard && { accepted: [...(job.accepted ?? []), event.data.hazard] }),
      };
    case 'job.supervised':
      return { ...job, supervisedBy: event.data.on ? event.by : null };
    case 'rules.adopted':
      return { ...job, rules: rulesWith(event.data.rules, DEFAULT_RULES) };
    case 'verdict.given':
      return { ...job, verdict: event.data };
    case 'fitting.confirmed':
      return { ...job, fitting: [...job.fitting, event.data] };
    case 'battery.replaced':
      return { ...job, replaced: [...job.replaced, { ...event.data, at: timeOf(event) }] };
    case 'job.closed':
      return { ...job, closedAt: timeOf(event) };
    case 'recheck.taken':
      // The verdict that stands now has promises of its own.
      return { ...job, recheck: { ...event.data, at: timeOf(event) }, followedUp: [] };
    case 'follow-up.done': {
      const { kind } = event.data;
      const changed = kind === 'replace' ? [{ battery: null, rating: null, at: timeOf(event) }] : [];
      return {
        ...job,
        followedUp: [...job.followedUp, kind],
        replaced: [...job.replaced, ...changed],
      };
    }
  }
}

/** A try that begins now, by the machine itself. */
const tried = (startedAt: string, tempC: number): Attempt => ({
  startedAt,
  tempC,
  endedAt: null,
  outcome: null,
  seconds: null,
  lowestVolts: null,
  restSeconds: 0,
  restFor: 'rule',
  helped: false,
  sourceId: null,
  starterAmps: null,
  optionId: null,
  waitedMinutes: 0,
});

function without(findings: Job['findings'], checks: readonly CheckId[]): Job['findings'] {
  return Object.fromEntries(Object.entries(findings).filter(([check]) => !checks.includes(check as CheckId)));
}

const withStop = (stops: Job['stops'], stop: StopCondition): Job['stops'] => [
  ...stops.filter((s) => s !== stop),
  stop,
];

/** The job once its ice has thawed: how cold it was before tells no more of it. */
function thawed(job: Job, thawedAt: string): Job {
  if (!job.scene) return { ...job, thawedAt };
  const { coldestC: _coldestC, ...scene } = job.scene;
  return { ...job, scene, thawedAt };
}

/** A wait counts from the act that it follows; a clamp that comes off, or a source that is switched off, ends it. */
function chargeAfter(job: Job, event: JobEvent): Pick<Job, 'chargesSince' | 'charged'> {
  const { charged, chargesSince, plan } = job;
  if (event.type === 'step.confirmed' && event.data.step === 'wait')
    return { charged, chargesSince: chargesSince ?? job.lastActAt };
  const ends =
    event.type === 'clamp.detached' ||
    (event.type === 'donor.switched' && !event.data.running) ||
    (event.type === 'pack.switched' && !event.data.on) ||
    (event.type === 'plug.moved' && !event.data.in);
  // A charger charges from the moment it is on, whether a wait was confirmed or not.
  const since = chargesSince ?? (plan?.sourceKind === 'mains-charger' ? job.joinedSince : null);
  if (!ends || since === null || !plan) return { charged, chargesSince };
  const at = timeOf(event);
  const { optionId, chargeOnly } = plan;
  return {
    charged: { optionId, minutes: minutesBetween(since, at), at, chargeOnly },
    chargesSince: null,
  };
}

/** A source gives from the moment that all its clamps, and its switch, are on until one of them is not, or until the machine runs. */
function joinAfter(job: Job, joined: boolean, at: string): Pick<Job, 'joinedSince' | 'joins'> {
  const { joinedSince, joins, plan } = job;
  if (joined) return { joinedSince: joinedSince ?? at, joins };
  if (joinedSince === null || !plan) return { joinedSince: null, joins };
  const join = { optionId: plan.optionId, minutes: minutesBetween(joinedSince, at) };
  return { joinedSince: null, joins: [...joins, join] };
}

function isJoined({ clamps, packOn, pluggedIn }: HookupState, plan: Job['plan']): boolean {
  if (plan === null || !clampsInHand(plan).every((clamp) => clamps[clamp] !== null)) return false;
  return (packOn || !hasSwitch(plan)) && (pluggedIn || plan.sourceKind !== 'mains-charger');
}

const minutesBetween = (since: string | null, at: string): number =>
  since === null ? 0 : Math.max(0, (Date.parse(at) - Date.parse(since)) / 60_000);

function toggled<T>(list: readonly T[], item: T): readonly T[] {
  return list.includes(item) ? list.filter((x) => x !== item) : [...list, item];
}

/** The last event that Undo would take back, or null. */
export function lastUndoable(events: readonly JobEvent[]): JobEvent | null {
  const undone = undoneIds(events);
  const fixed: readonly JobEvent['type'][] = [
    'job.opened',
    'job.closed',
    'follow-up.done',
    'recheck.taken',
    'event.undone',
  ];
  return events.filter((e) => !undone.has(e.id) && !fixed.includes(e.type)).at(-1) ?? null;
}
