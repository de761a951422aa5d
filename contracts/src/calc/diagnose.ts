import { CAUSES, TOOLS, WEIGHED_CHECK_IDS } from '@voltrek/core/diagnosis';
import { MACHINE_CLASSES } from '@voltrek/core/machine';
import * as yup from 'yup';
import { found } from '../found.js';
import { evidenceBattery, record, result, subjectShape } from './parts.js';

/** Evidence in, as the checks found it. */
export const DIAGNOSE_INPUT = record({
  machineClass: yup.string().oneOf(MACHINE_CLASSES).required(),
  ...subjectShape,
  evidence: yup
    .array()
    .of(
      record({
        check: yup.string().oneOf(WEIGHED_CHECK_IDS).required(),
        found: found(),
        battery: evidenceBattery(),
      }).required(),
    )
    .max(40)
    .required(),
  /** The tools at hand; left out: all of them. */
  tools: yup.array().of(yup.string().oneOf(TOOLS).required()).notRequired(),
});

/** Causes, likeliest first, with what pushed each; and the checks that would tell most for their time. */
export const DIAGNOSE_OUTPUT = record({
  suspicions: yup
    .array()
    .of(
      record({
        cause: yup.string().oneOf(CAUSES).required(),
        share: result(),
        pushes: yup
          .array()
          .of(
            record({
              check: yup.string().oneOf(WEIGHED_CHECK_IDS).required(),
              found: found(),
              battery: evidenceBattery(),
              factor: result(),
            }).required(),
          )
          .required(),
      }).required(),
    )
    .required(),
  proposals: yup
    .array()
    .of(
      record({
        check: yup.string().oneOf(WEIGHED_CHECK_IDS).required(),
        battery: evidenceBattery(),
        gainBits: result(),
        minutes: result(),
        worth: result(),
      }).required(),
    )
    .required(),
});
