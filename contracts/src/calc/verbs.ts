import { GRAVITY_RANGE } from '@voltrek/core/battery';
import { PLAN_INPUT_RANGES } from '@voltrek/core/plan';
import { TYPED_RANGES } from '@voltrek/core/quantities';
import * as yup from 'yup';
import { DIAGNOSE_INPUT, DIAGNOSE_OUTPUT } from './diagnose.js';
import { HOOKUP_INPUTS, HOOKUP_OUTPUTS } from './hookup.js';
import { TRACE_INPUT, TRACE_OUTPUT, VERDICT_INPUT, VERDICT_OUTPUT } from './verdict.js';
import {
  AMPS,
  cells,
  chemistry,
  FARADS,
  figure,
  maybe,
  OHMS,
  rating,
  record,
  rescueShape,
  result,
  SECONDS,
  share,
  tempC,
  VOLTS,
} from './parts.js';
import { FAULTS } from '../words/fault-words.js';

const samples = () => yup.number().integer().min(1).max(200_000).notRequired();
const seed = () => yup.number().integer().min(0).max(4_294_967_295).notRequired();
const series = () => yup.array().of(result()).required();
const flag = () => yup.boolean().required();

/** Input of each verb of the command line. */
export const CALC_INPUTS = {
  soc: record({
    chemistry: chemistry(),
    tempC: tempC(),
    restVolts: yup.number().min(TYPED_RANGES.volts.min).max(16).notRequired(),
    gravities: yup.array().of(figure(GRAVITY_RANGE)).min(1).max(6).notRequired(),
  }).test(
    'oneReading',
    FAULTS.oneReading,
    ({ restVolts, gravities }) => (restVolts == null) !== (gravities == null),
  ),
  crank: record({
    ...rescueShape,
    seconds: yup.number().min(0.1).max(30).notRequired(),
    trace: yup.boolean().notRequired(),
  }),
  odds: record({ ...rescueShape, samples: samples(), seed: seed() }),
  wait: record({
    ...rescueShape,
    minutes: yup.number().integer().min(1).max(PLAN_INPUT_RANGES.waitMinutes.max).notRequired(),
    samples: samples(),
    seed: seed(),
  }),
  leads: record({ ...rescueShape, samples: samples(), seed: seed() }),
  spice: record({ ...rescueShape, seconds: yup.number().min(0.1).max(30).notRequired() }),
  capacitor: record({
    bank: cells(),
    volts: figure(VOLTS),
    minVolts: figure(VOLTS),
    amps: figure(AMPS),
    secondsEach: figure(SECONDS),
    tolerance: yup.number().min(0).max(0.5).notRequired(),
    chargeAmps: figure(AMPS).notRequired(),
    drainAmps: figure({ min: 0.000001, max: 100, unit: 'A' }).notRequired(),
  }),
  equalise: record({
    highVolts: figure(VOLTS),
    lowVolts: figure(VOLTS),
    highFarads: figure(FARADS),
    lowFarads: figure(FARADS),
    ohms: figure(OHMS),
    safeVolts: figure({ min: 0.01, max: 10, unit: 'V' }),
  }),
  charge: record({
    rating: rating(),
    soc: share(),
    targetSoc: share(),
    amps: figure(AMPS),
    tempC: tempC(),
    startAmps: figure(AMPS).notRequired(),
    startSeconds: figure(SECONDS).notRequired(),
    drainAmps: figure({ min: 0.000001, max: 100, unit: 'A' }).notRequired(),
  }),
  ...HOOKUP_INPUTS,
  diagnose: DIAGNOSE_INPUT,
  verdict: VERDICT_INPUT,
  trace: TRACE_INPUT,
} as const;
export type CalcVerb = keyof typeof CALC_INPUTS;
export const CALC_VERBS = Object.keys(CALC_INPUTS) as CalcVerb[];
export type CalcInput<V extends CalcVerb> = yup.InferType<(typeof CALC_INPUTS)[V]>;

const traceOut = record({
  seconds: series(),
  postVolts: series(),
  starterVolts: series(),
  starterAmps: series(),
  sourceAmps: series(),
  rpm: series(),
});

/** Output of each verb. */
export const CALC_OUTPUTS = {
  soc: record({
    soc: result(),
    low: result(),
    high: result(),
    belowFlat: flag(),
    freezeC: maybe(),
    badCell: maybe(),
  }),
  crank: record({
    turns: flag(),
    rpm: result(),
    neededRpm: result(),
    starterVolts: result(),
    starterAmps: result(),
    postVolts: result(),
    sourceAmps: result(),
    leadLossVolts: result(),
    dipVolts: result(),
    startsAtSeconds: maybe(),
    leadRiseC: result(),
    endSoc: series(),
    trace: traceOut.notRequired().default(undefined),
  }),
  odds: record({
    start: result(),
    low: result(),
    high: result(),
    samples: result(),
    meanRpm: result(),
    meanStarterVolts: result(),
    matters: yup.object().required(),
  }),
  wait: record({
    start: series(),
    soc: series(),
    kneeMinutes: result(),
    shape: yup.string().oneOf(['no-supply', 'at-once', 'knee', 'still-rising', 'no-use']).required(),
  }),
  leads: record({
    cells: yup
      .array()
      .of(
        record({
          sectionMm2: result(),
          lengthM: result(),
          conductor: yup.string().required(),
          starterVolts: result(),
          rpm: result(),
          lossVolts: result(),
          riseC: result(),
          odds: result(),
        }),
      )
      .required(),
  }),
  spice: record({ netlist: yup.string().required() }),
  capacitor: record({
    farads: result(),
    maxVolts: result(),
    balancedMaxVolts: result(),
    esrOhms: result(),
    usableJoules: result(),
    fallByChargeVolts: result(),
    fallByEsrVolts: result(),
    cranks: result(),
    rechargeSeconds: maybe(),
    holdUpHours: maybe(),
  }),
  equalise: record({
    contactAmps: result(),
    endVolts: result(),
    tauSeconds: result(),
    secondsToSafe: result(),
    joules: result(),
    peakWatts: result(),
    ohmsForTenAmps: result(),
  }),
  charge: record({
    hours: maybe(),
    acceptanceAmps: result(),
    startMinutes: maybe(),
    driveMinutes: maybe(),
    needsCharger: flag(),
    daysToFlat: maybe(),
  }),
  ...HOOKUP_OUTPUTS,
  diagnose: DIAGNOSE_OUTPUT,
  verdict: VERDICT_OUTPUT,
  trace: TRACE_OUTPUT,
} as const satisfies Record<CalcVerb, yup.AnyObjectSchema>;
export type CalcOutput<V extends CalcVerb> = yup.InferType<(typeof CALC_OUTPUTS)[V]>;
