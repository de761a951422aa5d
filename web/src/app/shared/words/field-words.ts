import type { ValidationError } from '@voltrek/contracts';
import { messagesOf } from './messages-of';

const T = messagesOf('field');
const KINDS: Readonly<Record<string, string>> = T.kinds;

/** Returns why a field cannot be so, under its label; the schema's own words for a rule that is not general. */
export function fieldText(error: ValidationError, label: string): string {
  const { type, message } = error;
  const params = (error.params ?? {}) as Readonly<Record<string, string | number | undefined>>;
  const isText = typeof error.value === 'string';
  const values = { ...params, path: label };
  switch (type) {
    case 'required':
    case 'optionality':
      return T.required(values);
    case 'nullable':
      return T.notNull(values);
    case 'oneOf':
      return T.oneOf({ path: label, values: params.values });
    case 'notOneOf':
      return T.notOneOf({ path: label, values: params.values });
    case 'typeError':
      return T.notType({ path: label, kind: KINDS[params.type ?? ''] ?? params.type });
    case 'length':
      return T.stringLength({ path: label, length: params.length });
    case 'min':
      if (params.more !== undefined) return T.moreThan({ path: label, more: params.more });
      if (isText && params.min === 1) return T.required(values);
      return isText ? T.stringMin({ path: label, min: params.min }) : T.min({ path: label, min: params.min });
    case 'max':
      if (params.less !== undefined) return T.lessThan({ path: label, less: params.less });
      return isText ? T.stringMax({ path: label, max: params.max }) : T.max({ path: label, max: params.max });
    case 'integer':
      return T.integer(values);
    case 'trim':
      return T.trim(values);
    default:
      return message.replace(error.path ?? '', label);
  }
}
