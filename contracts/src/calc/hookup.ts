import { CLAMP_IDS } from '@voltrek/core/circuit';
import { CIRCUMSTANCES, CONFIRMATIONS, type HandAction, STORIES, WRONG_METALS } from '@voltrek/core/hookup';
import { MACHINE_CLASSES, POINT_KINDS } from '@voltrek/core/machine';
import { SOURCE_KINDS } from '@voltrek/core/sources';
import { TYPED_RANGES } from '@voltrek/core/quantities';
import { RULES, type SchoolOf } from '@voltrek/core/rules';
import * as yup from 'yup';
import { engine, figure, leads, rating, record, source, tempC, coldestC } from './parts.js';
import { FAULTS } from '../words/fault-words.js';

const MM = { min: -50_000, max: 50_000, unit: 'mm' };
const SIZE = { min: 1, max: 50_000, unit: 'mm' };
const id = () => yup.string().min(1).max(64).required();
const batteryIndex = () => yup.number().integer().min(0).max(1);

const machine = record({
  machineClass: yup.string().oneOf(MACHINE_CLASSES).required(),
  systemVolts: yup
    .number()
    .oneOf([12, 24] as const)
    .required(),
  /** Its plus is on its body. */
  earth: yup
    .string()
    .oneOf(['positive'] as const)
    .notRequired(),
  engine: engine.nullable().defined(),
  batteries: yup
    .array()
    .of(
      record({
        rating: rating(),
        rect: record({
          xMm: figure(MM),
          yMm: figure(MM),
          widthMm: figure(SIZE),
          lengthMm: figure(SIZE),
        }).required(),
        closedIn: yup.boolean().notRequired(),
      }).required(),
    )
    .min(1)
    .max(2)
    .required(),
  points: yup
    .array()
    .of(
      record({
        id: id(),
        kind: yup.string().oneOf(POINT_KINDS).required(),
        xMm: figure(MM),
        yMm: figure(MM),
        battery: batteryIndex().notRequired(),
      }).required(),
    )
    .min(2)
    .max(60)
    .required(),
});

const option = record({
  sourceKind: yup.string().oneOf(SOURCE_KINDS).required(),
  outputVolts: yup
    .number()
    .oneOf([12, 24] as const)
    .required(),
  leads: leads.required(),
  source: source.required(),
  /** Clamps at both ends of the leads, as of a donor or spare batteries. */
  looseLeads: yup.boolean().required(),
  acrossBattery: batteryIndex().notRequired(),
  donorRuns: yup.boolean().notRequired(),
  chargeOnly: yup.boolean().notRequired(),
}).required();

/** One of the schools of a house rule. */
const school = <K extends 'lastBlack' | 'firstRed' | 'clampSequence' | 'donorEngine'>(rule: K) =>
  yup
    .string<SchoolOf<K>>()
    .oneOf(RULES[rule].limit.schools as readonly SchoolOf<K>[])
    .notRequired();

const rules = record({
  lastBlack: school('lastBlack'),
  firstRed: school('firstRed'),
  clampSequence: school('clampSequence'),
  donorEngine: school('donorEngine'),
})
  .notRequired()
  .default(undefined);

const SHAPES: Readonly<Record<HandAction['kind'], yup.ObjectShape>> = {
  attach: {
    clamp: yup.string().oneOf(CLAMP_IDS).required(),
    pointId: id(),
    onto: yup.string().oneOf(WRONG_METALS).notRequired(),
  },
  detach: { clamp: yup.string().oneOf(CLAMP_IDS).required() },
  'donor-engine': { running: yup.boolean().required() },
  pack: { on: yup.boolean().required() },
  plug: { in: yup.boolean().required() },
  confirm: { what: yup.string().oneOf(CONFIRMATIONS).required() },
  circumstance: { what: yup.string().oneOf(CIRCUMSTANCES).required(), on: yup.boolean().required() },
  lay: { clamp: yup.string().oneOf(CLAMP_IDS).required() },
  crank: {},
  touch: { a: yup.string().oneOf(CLAMP_IDS).required(), b: yup.string().oneOf(CLAMP_IDS).required() },
  bridge: { pointId: id() },
  loosen: { pointId: id() },
};
const KINDS = Object.keys(SHAPES) as HandAction['kind'][];

/** One act of hands: its kind decides what else it has. */
const action = yup
  .object({ kind: yup.string().oneOf(KINDS).required() })
  .required()
  .test('wrongShape', FAULTS.wrongShape, function (value, context) {
    const kind = KINDS.find((k) => k === value.kind);
    if (!kind) return true;
    try {
      record({ kind: yup.string().required(), ...SHAPES[kind] }).validateSync(value, { strict: true });
      return true;
    } catch (error) {
      const why = error instanceof yup.ValidationError ? error.message : String(error);
      return context.createError({ message: `${context.path}: ${why}` });
    }
  });

const scene = {
  machine: machine.required(),
  donor: machine.notRequired().default(undefined),
  option,
  restVolts: yup
    .array()
    .of(figure({ min: TYPED_RANGES.volts.min, max: 16, unit: 'V' }))
    .min(1)
    .max(2)
    .required(),
  tempC: tempC(),
  coldestC: coldestC(),
  enclosed: yup.boolean().notRequired(),
  casualtyRuns: yup.boolean().notRequired(),
  rules,
};
const actions = () => yup.array().of(action).max(60);

/** Input of the verbs of the hook-up. */
export const HOOKUP_INPUTS = {
  hookup: record({ ...scene, waitMinutes: yup.number().min(0).max(240).notRequired() }),
  check: record({ ...scene, actions: actions().min(1).required() }),
  makesafe: record({ ...scene, actions: actions().required() }),
} as const;

const hazard = record({
  isMirrored: yup.boolean().notRequired(),
  code: yup.string().required(),
  severity: yup.string().required(),
  amps: yup.number().nullable().defined(),
  volts: yup.number().nullable().defined(),
  story: yup.string().oneOf(STORIES).notRequired(),
  says: yup.string().required(),
});
const steps = () =>
  yup
    .array()
    .of(
      record({
        action: yup.object().required(),
        reason: yup.string().notRequired(),
        minutes: yup.number().notRequired(),
        hazards: yup.array().of(hazard).required(),
      }),
    )
    .required();

/** Output of the verbs of the hook-up. */
export const HOOKUP_OUTPUTS = {
  hookup: record({ steps: steps(), clearing: steps() }),
  check: record({ steps: steps() }),
  makesafe: record({ steps: steps() }),
} as const;
