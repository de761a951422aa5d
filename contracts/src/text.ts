import * as yup from 'yup';
import { FIELD_FAULTS, FIELD_WORDS } from './words/field-words.js';

yup.setLocale(FIELD_WORDS);

/** Ids are short and plain, so that they are safe in an address. */
export const ID_PATTERN = /^[a-z0-9][a-z0-9-]{0,63}$/;

/** An id as devices make them. */
export const UUID_PATTERN = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** A required id. */
export const idText = () => yup.string().matches(ID_PATTERN, FIELD_FAULTS.id).required();
/** An id, or null where there is none. */
export const maybeId = () => yup.string().matches(ID_PATTERN).nullable().defined();
/** Required text of at most `max` characters. */
export const shortText = (max: number) => yup.string().trim().min(1).max(max).required();

function isInstant(value: string): boolean {
  if (!/^20\d\d-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/.test(value)) return false;
  const moment = new Date(value);
  // A day that no month has is read as one of the next month.
  return !Number.isNaN(moment.getTime()) && moment.toISOString().startsWith(value.slice(0, 19));
}

/** A moment of this century in UTC, to the millisecond at most. */
export const instantText = () =>
  yup.string().test('instant', FIELD_FAULTS.instant, (value) => value == null || isInstant(value));

/** A fault of a whole whose parts are each right: its path, and why; null when there is none. */
export type WholeCheck<T> = (given: T) => { readonly path: string; readonly message: string } | null;

/**
 * Untrusted input as its schema has it. A whole is judged once its parts are known to be right: a check of it may lean on them.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parsed<T>(schema: yup.Schema<T>, input: unknown, whole: WholeCheck<T> = () => null): T {
  const given = schema.validateSync(input, { abortEarly: false, strict: true });
  const fault = whole(given);
  if (fault) throw new yup.ValidationError(fault.message, given, fault.path);
  return given;
}

/** Runs a check of a part; its findings carry the part's path. */
export function underPath(path: string, check: () => void): void {
  try {
    check();
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    throw new yup.ValidationError(
      inner.map((e) => new yup.ValidationError(e.message, e.value, e.path ? `${path}.${e.path}` : path)),
    );
  }
}
