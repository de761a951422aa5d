import { ruleFault } from '@voltrek/core/rules';
import * as yup from 'yup';
import { idText } from './text.js';
import type { RuleSetting } from './wire.js';

const setting = yup
  .object({
    key: yup.string().required(),
    value: yup.mixed<string | number>().required(),
    by: idText(),
  })
  .noUnknown()
  .strict()
  .required()
  .test('allowed', 'not allowed', (given, context) => {
    const why = ruleFault(given.key, given.value);
    return why === null || context.createError({ path: 'value', message: why });
  });

/**
 * A house rule as it is to be set, from untrusted input.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parseRuleSetting(input: unknown): RuleSetting {
  return setting.validateSync(input, { abortEarly: false, strict: true });
}
