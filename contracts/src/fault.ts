import * as yup from 'yup';
import { type FaultCode, FAULTS, LISTS, VALUE_KINDS } from './words/fault-words.js';

/** Parameters of the words of a fault, by name. `kind` and `list` are codes themselves. */
export type FaultParams = Readonly<Record<string, string | number>>;

/** Something wrong with a field, a row or a file. A program reads the code, a person who reads the API reads the English message. */
export interface Fault {
  /** Its place: `engine.systemVolts`, `kit[2]`; empty for the whole. */
  readonly path: string;
  readonly code: FaultCode;
  readonly params: FaultParams;
  readonly message: string;
}

const CODED: Readonly<Record<string, Readonly<Record<string, string>>>> = { kind: VALUE_KINDS, list: LISTS };

const worded = (code: FaultCode, path: string, params: FaultParams): string =>
  FAULTS[code].replace(/\$\{(\w+)\}/g, (_, name: string) => {
    if (name === 'path') return path || 'it';
    const value = String(params[name] ?? '');
    return CODED[name]?.[value] ?? value;
  });

/**
 * Returns a fault by its code, with its English words.
 *
 * @param path where it is; empty for the whole
 * @param params the parameters of its words
 * @example faultAt('id', 'twice', { key: 'crew-1' }).message // => 'crew-1 is there twice'
 */
export const faultAt = (path: string, code: FaultCode, params: FaultParams = {}): Fault => ({
  path,
  code,
  params,
  message: worded(code, path, params),
});

/** Returns the error of a schema for a fault that a schema does not see by itself. */
export function faultError({ path, code, params, message }: Fault, value: unknown): yup.ValidationError {
  const error = new yup.ValidationError(message, value, path, code);
  error.params = { ...params };
  return error;
}

/**
 * Returns every fault of an error of a schema.
 *
 * @example faultsIn(error) // => [{ path: 'volts', code: 'max', params: { max: 40 }, message: 'volts must be 40 at the most' }]
 */
export const faultsIn = (error: yup.ValidationError): Fault[] =>
  (error.inner.length > 0 ? error.inner : [error]).map((one) => ({
    path: one.path ?? '',
    code: codeOf(one),
    params: paramsOf(one),
    message: one.message,
  }));

const CODES: Readonly<Record<string, FaultCode>> = {
  optionality: 'required',
  nullable: 'notNull',
  typeError: 'notType',
};

function codeOf({ type = '', value, params = {} }: yup.ValidationError): FaultCode {
  if (type === 'length' || type === 'min' || type === 'max') {
    if (type === 'min' && 'more' in params) return 'moreThan';
    if (type === 'max' && 'less' in params) return 'lessThan';
    if (Array.isArray(value))
      return ({ length: 'listLength', min: 'listMin', max: 'listMax' } as const)[type];
    if (typeof value === 'string') {
      if (type === 'min' && params.min === 1) return 'required';
      return ({ length: 'stringLength', min: 'stringMin', max: 'stringMax' } as const)[type];
    }
    return type === 'length' ? 'default' : type;
  }
  const code = CODES[type] ?? type;
  return code in FAULTS ? (code as FaultCode) : 'default';
}

/** Parameters that yup itself adds. The value at fault stays where it came from. */
const OF_YUP: ReadonlySet<string> = new Set(['path', 'label', 'value', 'originalValue', 'spec', 'type']);

function paramsOf({ type, params = {} }: yup.ValidationError): FaultParams {
  const kept = Object.entries(params).filter(
    (entry): entry is [string, string | number] =>
      !OF_YUP.has(entry[0]) && (typeof entry[1] === 'string' || typeof entry[1] === 'number'),
  );
  return {
    ...Object.fromEntries(kept),
    ...(type === 'typeError' && typeof params.type === 'string' && { kind: params.type }),
  };
}

// The schemas' own rules speak the same words.
yup.setLocale({
  mixed: {
    default: FAULTS.default,
    required: FAULTS.required,
    defined: FAULTS.required,
    notNull: FAULTS.notNull,
    oneOf: FAULTS.oneOf,
    notOneOf: FAULTS.notOneOf,
    notType: ({ path, type }: { path: string; type: string }) => worded('notType', path, { kind: type }),
  },
  string: {
    length: FAULTS.stringLength,
    min: ({ path, min }: { path: string; min: number }) =>
      worded(min === 1 ? 'required' : 'stringMin', path, { min }),
    max: FAULTS.stringMax,
    matches: FAULTS.matches,
    trim: FAULTS.trim,
  },
  number: {
    min: FAULTS.min,
    max: FAULTS.max,
    lessThan: FAULTS.lessThan,
    moreThan: FAULTS.moreThan,
    integer: FAULTS.integer,
  },
  object: { noUnknown: FAULTS.noUnknown },
  array: { length: FAULTS.listLength, min: FAULTS.listMin, max: FAULTS.listMax },
});
