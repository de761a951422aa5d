import { TYPED_RANGES } from '@voltrek/core';
import * as yup from 'yup';
import { idText, shortText } from './text.js';
import type { NewCall } from './wire.js';

const { min, max } = TYPED_RANGES.ambientC;

const newCall: yup.ObjectSchema<NewCall> = yup
  .object({
    id: idText(),
    title: shortText(120),
    placeName: shortText(120),
    said: yup.string().max(400).defined(),
    modelId: idText(),
    ambientC: yup.number().required().min(min).max(max),
    urgent: yup.boolean().required(),
  })
  .noUnknown()
  .strict()
  .required();

/**
 * A reported call from untrusted input.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parseNewCall(input: unknown): NewCall {
  return newCall.validateSync(input, { abortEarly: false, strict: true });
}
