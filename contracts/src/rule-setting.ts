import { ruleFault } from '@voltrek/core/rules';
import * as yup from 'yup';
import { idText, parsed } from './text.js';
import type { RuleSetting } from './wire.js';

export const RULE_SETTING = yup
  .object({
    key: yup.string().required(),
    value: yup.mixed<string | number>().required(),
    by: idText(),
  })
  .noUnknown()
  .strict()
  .required();

/**
 * A house rule as it is to be set, from untrusted input.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parseRuleSetting(input: unknown): RuleSetting {
  return parsed(RULE_SETTING, input, ({ key, value }) => {
    const message = ruleFault(key, value);
    return message === null ? null : { path: 'value', message };
  });
}
