import { BATTERY_CONDITIONS, CAUSES, CHECK_IDS, STOP_CONDITIONS, SUSPECTS } from '@voltrek/core/diagnosis';
import { CERTAINTIES, FOLLOW_UPS, GROUNDS, VERDICTS } from '@voltrek/core/verdict';
import * as yup from 'yup';
import { found } from '../found.js';
import { TIME_UNITS_OF_FILES } from '../trace-fault.js';
import { DIAGNOSE_INPUT } from './diagnose.js';
import { coldestC, evidenceBattery, maybe, record, result, subjectShape } from './parts.js';

/** A diagnosis, and what the verdict must know beside it. Rest volts are taken from the evidence. */
export const VERDICT_INPUT = DIAGNOSE_INPUT.concat(
  record({
    stops: yup.array().of(yup.string().oneOf(STOP_CONDITIONS).required()).notRequired(),
    /** Other flat calls of this machine within the repeat window. */
    earlierFlatCalls: yup.number().integer().min(0).max(20).notRequired(),
    diedInService: yup.boolean().notRequired(),
    coldestC: coldestC(),
  }),
);

const ledger = () =>
  yup
    .array()
    .of(
      record({
        check: yup.string().oneOf(CHECK_IDS).required(),
        found: found(),
        battery: evidenceBattery(),
        bits: result(),
      }).required(),
    )
    .required();

export const VERDICT_OUTPUT = record({
  verdict: yup.string().oneOf(VERDICTS).required(),
  suspect: yup.string().oneOf(SUSPECTS).nullable().defined(),
  certainty: yup.string().oneOf(CERTAINTIES).required(),
  share: result(),
  ground: yup.string().oneOf(GROUNDS).required(),
  causes: yup
    .array()
    .of(record({ cause: yup.string().oneOf(CAUSES).required(), share: result() }).required())
    .required(),
  ledger: ledger(),
  deciding: record({
    check: yup.string().oneOf(CHECK_IDS).required(),
    battery: evidenceBattery(),
    chance: result(),
  })
    .nullable()
    .notRequired()
    .default(undefined),
  followUps: yup
    .array()
    .of(record({ kind: yup.string().oneOf(FOLLOW_UPS).required(), days: result() }).required())
    .required(),
  /** Of a string, each battery by itself from the chassis side; left out where there is one. */
  batteries: yup.array().of(
    record({
      condition: yup.string().oneOf(BATTERY_CONDITIONS).required(),
      share: result(),
      ledger: ledger(),
    }).required(),
  ),
});

/** The text of a logger's CSV, and the machine it was taken on. */
export const TRACE_INPUT = record({
  csv: yup.string().required(),
  ...subjectShape,
});

export const TRACE_OUTPUT = record({
  rows: result(),
  timeUnit: yup.string().oneOf(TIME_UNITS_OF_FILES).required(),
  cutOff: yup.boolean().required(),
  durationSeconds: result(),
  restVolts: maybe(),
  keyOnDropVolts: maybe(),
  crank: record({
    fromSeconds: result(),
    toSeconds: result(),
    inrushVolts: result(),
    minimumVolts: result(),
    meanVolts: result(),
    meanAmps: maybe(),
    rpm: maybe(),
    unevenShare: maybe(),
    chatterPerSecond: maybe(),
    ohms: maybe(),
  })
    .nullable()
    .notRequired()
    .default(undefined),
  recovery: record({ volts: result(), afterSeconds: result() }).nullable().notRequired().default(undefined),
  charging: record({ atSeconds: result(), volts: result() }).nullable().notRequired().default(undefined),
  strength: record({
    ohms: result(),
    ageing: result(),
    ccaAmps: result(),
    share: result(),
    low: result(),
    high: result(),
  })
    .nullable()
    .notRequired()
    .default(undefined),
  notes: yup.array().of(yup.string().required()).required(),
});
