import { ruleFault } from '@voltrek/core/rules';
import * as yup from 'yup';
import { faultAt } from './fault.js';
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
    const fault = ruleFault(key, value);
    return fault && faultAt('value', fault.code, fault.params);
  });
}
