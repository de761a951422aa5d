import { ATTEMPT_OUTCOMES } from '@voltrek/core/crank';
import { LIFT_STEPS } from '@voltrek/core/charging';
import { CLAMP_IDS } from '@voltrek/core/circuit';
import {
  BATTERY_CONDITIONS,
  CAUSES,
  POLARITY_SIGNS,
  CHECK_IDS,
  JOINT_SIDES,
  READING_KINDS,
  REPAIR_KINDS,
  STOP_CONDITIONS,
  SUSPECTS,
  SYMPTOMS,
} from '@voltrek/core/diagnosis';
import { CIRCUMSTANCES, CONFIRMATIONS, FITTING_STEPS, WRONG_METALS, HAZARDS } from '@voltrek/core/hookup';
import {
  EVENT_TYPES,
  type EventData,
  type EventType,
  type JobEvent,
  PLACE_KINDS,
  READING_SOURCES,
  REST_REASONS,
  type StoredEvent,
  upgradeEvent,
} from '@voltrek/core/job';
import { ORIGINS, OUTLOOKS, PLAN_INPUT_KEYS } from '@voltrek/core/plan';
import { SOURCE_KINDS } from '@voltrek/core/sources';
import { TYPED_RANGES } from '@voltrek/core/quantities';
import { LATCH_PLACES } from '@voltrek/core/reach';
import { RULES, ruleFault } from '@voltrek/core/rules';
import { CERTAINTIES, FOLLOW_UPS, GROUNDS, VERDICTS } from '@voltrek/core/verdict';
import * as yup from 'yup';
import { evidenceBattery, rating } from './calc/parts.js';
import { found } from './found.js';
import { id, idText, instantText, parsed, placeText, shortText, underPath } from './text.js';
import { FAULTS } from './words/fault-words.js';

const oneOf = <T extends string>(values: readonly T[]) => yup.string().oneOf(values).required();
const flag = () => yup.boolean().required();
const figure = () => yup.number().required();
const maybeFigure = () => yup.number().nullable().defined();
const reason = () => shortText(400).min(3);
const record = <S extends yup.ObjectShape>(shape: S) => yup.object(shape).noUnknown().strict().required();

const RULE_KEYS = Object.keys(RULES);

const list = (of: yup.Schema, max: number) => yup.array().of(of).max(max).required();

/** More repairs than any call sees. */
const REPAIRS_MOST = 40;
/** The longest wait a plan may ask for: a large battery brought to full by a small charger, min. */
const WAIT_MINUTES_MAX = 48 * 60;
const share = () => figure().min(0).max(1);
const battery = () => figure().integer().min(0).max(3);
const ledger = () =>
  yup
    .array()
    .of(
      record({
        check: oneOf(CHECK_IDS),
        found: found(),
        bits: figure().min(-100).max(100),
        battery: evidenceBattery(),
        repaired: yup.number().integer().min(0).max(REPAIRS_MOST),
        postVolts: yup.number().min(-40).max(40),
        cellSpread: yup.number().min(0).max(1),
      }),
    )
    .max(120);

/** A repair's own fields. */
const repair = () => ({
  kind: oneOf(REPAIR_KINDS),
  side: yup.string().oneOf(JOINT_SIDES),
  check: yup.string().oneOf(CHECK_IDS),
});

/** House rules as far as they are not the defaults; each one within what a house may set. */
const ruleSettings = () =>
  yup
    .object()
    .strict()
    .test('rules', FAULTS.rules, (given: Readonly<Record<string, unknown>> | undefined) =>
      Object.entries(given ?? {}).every(([key, value]) => ruleFault(key, value) === null),
    );

/** The content of a verdict. */
const verdictFields = () => ({
  verdict: oneOf(VERDICTS),
  suspect: yup.string().oneOf(SUSPECTS).nullable().defined(),
  certainty: oneOf(CERTAINTIES),
  share: yup.number().min(0).max(1.000001),
  ground: yup.string().oneOf(GROUNDS),
  causes: yup
    .array()
    .of(record({ cause: oneOf(CAUSES), share: share() }))
    .max(CAUSES.length),
  ledger: ledger(),
  deciding: record({
    check: oneOf(CHECK_IDS),
    chance: figure().min(0).max(1.000001),
    battery: evidenceBattery(),
  })
    .nullable()
    .notRequired()
    .default(undefined),
  followUps: list(record({ kind: oneOf(FOLLOW_UPS), days: figure().integer().min(0).max(3650) }), 10),
  batteries: yup
    .array()
    .of(record({ condition: oneOf(BATTERY_CONDITIONS), share: share(), ledger: ledger() }))
    .max(4),
  repaired: yup.array().of(record(repair())).max(REPAIRS_MOST),
});

/** A schema for each field that an event of this type may carry: one that is missing, or too many, does not compile. */
type Fields<T extends EventType> = { readonly [K in keyof EventData[T]]-?: yup.ISchema<unknown> };

/** The data that each kind of event may carry. */
const FIELDS: { readonly [T in EventType]: Fields<T> } = {
  'job.opened': {
    callId: idText(),
    callNumber: figure().integer().min(0).max(1_000_000),
    title: shortText(120),
    placeName: placeText(),
    modelId: idText(),
    ambientC: figure().min(TYPED_RANGES.ambientC.min).max(TYPED_RANGES.ambientC.max),
    vehicleId: id(),
    vanId: id(),
    fitted: yup.array().of(rating()).max(4),
    rules: ruleSettings().default(undefined),
  },
  'scene.recorded': {
    ambientC: figure().min(TYPED_RANGES.ambientC.min).max(TYPED_RANGES.ambientC.max),
    coldestC: yup.number().min(TYPED_RANGES.ambientC.min).max(TYPED_RANGES.ambientC.max),
    place: oneOf(PLACE_KINDS),
    sloping: flag(),
    dark: flag(),
    enclosed: flag(),
    mainsNear: flag(),
  },
  'stop.raised': { stop: oneOf(STOP_CONDITIONS) },
  'stop.withdrawn': { stop: oneOf(STOP_CONDITIONS), reason: reason() },
  'symptom.recorded': { symptom: oneOf(SYMPTOMS) },
  'finding.recorded': {
    check: oneOf(CHECK_IDS),
    found: found(),
    source: yup.string().oneOf(READING_SOURCES),
    figures: yup.array().of(figure().min(-5000).max(5000)).max(12),
    battery: evidenceBattery(),
  },
  'finding.withdrawn': { check: oneOf(CHECK_IDS) },
  'repair.made': repair(),
  'model.identified': { modelId: idText() },
  'donor.parked': {
    xMm: figure().min(-30_000).max(30_000),
    yMm: figure().min(-30_000).max(30_000),
    turnedDeg: figure().min(-360).max(360),
    gapMm: figure().min(0).max(60_000),
    metresNeeded: figure().min(0).max(100),
  },
  'polarity.proved': { signs: list(oneOf(POLARITY_SIGNS), POLARITY_SIGNS.length) },
  'reading.taken': {
    kind: oneOf(READING_KINDS),
    volts: figure().min(TYPED_RANGES.volts.min).max(TYPED_RANGES.chargingVolts.max),
    battery: battery(),
    tempC: figure().min(TYPED_RANGES.ambientC.min).max(TYPED_RANGES.ambientC.max),
    source: oneOf(READING_SOURCES),
    strength: record({
      share: figure().min(0).max(2),
      low: figure().min(0).max(2),
      high: figure().min(0).max(2),
    })
      .notRequired()
      .default(undefined),
  },
  'latch.tried': { place: oneOf(LATCH_PLACES), opened: flag() },
  'photo.added': {
    photoId: yup.string().uuid().required(),
    caption: yup.string().trim().max(200).defined(),
    showsPerson: flag(),
  },
  'job.supervised': { on: flag() },
  'note.added': { text: shortText(400) },
  'van.called': { vanId: idText(), minutes: figure() },
  'van.arrived': { vanId: idText() },
  'battery.lifted': { battery: battery() },
  'lift.confirmed': { battery: battery(), step: oneOf(LIFT_STEPS) },
  'lift.read': {
    volts: figure().min(TYPED_RANGES.volts.min).max(TYPED_RANGES.chargingVolts.max),
    isWarm: flag(),
  },
  'charge.read': {
    volts: figure().min(TYPED_RANGES.chargingVolts.min).max(TYPED_RANGES.chargingVolts.max),
    amps: figure().min(TYPED_RANGES.chargeAmps.min).max(TYPED_RANGES.chargeAmps.max),
    isWarm: flag(),
  },
  'leads.measured': {
    sourceVolts: figure().min(TYPED_RANGES.chargingVolts.min).max(TYPED_RANGES.chargingVolts.max),
    casualtyVolts: figure().min(TYPED_RANGES.chargingVolts.min).max(TYPED_RANGES.chargingVolts.max),
    amps: figure().min(TYPED_RANGES.leadAmps.min).max(TYPED_RANGES.leadAmps.max),
  },
  'reading.withdrawn': { readingId: yup.string().uuid().required() },
  'plan.chosen': {
    optionId: shortText(120),
    sourceId: idText(),
    leadSetId: id().nullable().defined(),
    sourceKind: oneOf(SOURCE_KINDS),
    outlook: oneOf(OUTLOOKS),
    odds: yup.number().min(0).max(1).nullable().defined(),
    starterVolts: maybeFigure(),
    starterAmps: maybeFigure(),
    rpm: maybeFigure(),
    neededRpm: maybeFigure(),
    wakeVolts: maybeFigure(),
    postVolts: maybeFigure(),
    waitMinutes: figure().min(0).max(WAIT_MINUTES_MAX),
    chargeOnly: flag(),
    inputs: list(
      record({ key: oneOf(PLAN_INPUT_KEYS), value: figure(), origin: oneOf(ORIGINS) }),
      PLAN_INPUT_KEYS.length,
    ),
    thenOptionId: yup.string().max(120),
  },
  'step.confirmed': { step: oneOf(CONFIRMATIONS) },
  'clamp.attached': {
    clamp: oneOf(CLAMP_IDS),
    pointId: idText(),
    onto: yup.string().oneOf(WRONG_METALS),
  },
  'clamp.detached': { clamp: oneOf(CLAMP_IDS) },
  'donor.switched': { running: flag() },
  'pack.switched': { on: flag() },
  'plug.moved': { in: flag() },
  'circumstance.noted': { what: oneOf(CIRCUMSTANCES), on: flag() },
  'attempt.started': {},
  'attempt.ended': {
    outcome: oneOf(ATTEMPT_OUTCOMES),
    seconds: figure().min(0).max(3600),
    lowestVolts: yup.number().min(-32).max(32).nullable().defined(),
    restSeconds: yup.number().min(0).max(36_000),
    restFor: yup.string().oneOf(REST_REASONS),
  },
  'roll.tried': { started: flag() },
  'reset.ticked': { reset: shortText(120) },
  'override.given': {
    rule: oneOf([...RULE_KEYS, 'severe-hazard']),
    reason: reason(),
    hazard: yup.string().oneOf(HAZARDS),
  },
  'verdict.given': verdictFields(),
  'rules.adopted': { rules: ruleSettings().required() },
  'fitting.confirmed': { battery: battery(), step: oneOf(FITTING_STEPS) },
  'battery.found': {
    battery: battery(),
    rating: rating(),
    dateMark: yup.string().trim().max(20),
  },
  'battery.replaced': {
    battery: battery(),
    rating: rating(),
    batteryId: yup.string().uuid(),
    dateMark: yup.string().trim().max(20),
  },
  'job.closed': { note: yup.string().max(2000).defined() },
  'follow-up.done': { kind: oneOf(FOLLOW_UPS) },
  'recheck.taken': {
    tempC: figure().min(TYPED_RANGES.ambientC.min).max(TYPED_RANGES.ambientC.max),
    restVolts: list(figure().min(TYPED_RANGES.volts.min).max(TYPED_RANGES.volts.max), 4),
    tested: list(yup.number().min(0).max(2).nullable().defined(), 4),
    crankVolts: yup.number().min(0).max(32).nullable().defined(),
    verdict: record(verdictFields()),
  },
  'event.undone': { eventId: yup.string().uuid().required() },
};

/** The data of an event of each kind. */
export const EVENT_DATA = Object.fromEntries(
  Object.entries(FIELDS).map(([type, fields]) => [type, record(fields as yup.ObjectShape)]),
) as Record<EventType, yup.AnyObjectSchema>;

export const EVENT_ENVELOPE = yup
  .object({
    id: yup.string().uuid().required(),
    jobId: yup.string().uuid().required(),
    at: instantText().required(),
    heardAt: yup.string().optional(),
    by: idText(),
    sentBy: yup.string().max(80).optional(),
    type: yup.string().oneOf(EVENT_TYPES).required(),
    data: yup.object().required(),
  })
  .noUnknown()
  .strict()
  .required();

const storedEnvelope = EVENT_ENVELOPE.shape({ type: yup.string().max(40).required() });

/**
 * A job event from untrusted input.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parseJobEvent(input: unknown): JobEvent {
  parsed(EVENT_ENVELOPE, input);
  return withData(input as JobEvent);
}

/** An event whose envelope is sound. @throws yup.ValidationError for what it carries */
function withData(event: JobEvent): JobEvent {
  underPath('data', () => void parsed(EVENT_DATA[event.type], event.data));
  return event;
}

/**
 * A job event of this or an earlier version from untrusted input, in today's words.
 *
 * @returns null for one that says nothing any more
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parseStoredEvent(input: unknown): JobEvent | null {
  const event = upgradeEvent(parsed(storedEnvelope, input) as StoredEvent);
  if (!event) return null;
  // Its envelope was looked at, all but whether there is such an event today.
  return Object.hasOwn(EVENT_DATA, event.type) ? withData(event) : parseJobEvent(event);
}
