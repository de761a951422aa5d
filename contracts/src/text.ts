import * as yup from 'yup';
import { type Fault, faultError, faultsIn } from './fault.js';
import { FAULTS } from './words/fault-words.js';

/** Ids are short and plain, so that they are safe in an address. */
export const ID_PATTERN = /^[a-z0-9][a-z0-9-]{0,63}$/;

/** An id as devices make them. */
export const UUID_PATTERN = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** A text that is a UUID. */
export const uuid = () => yup.string().matches(UUID_PATTERN, { name: 'uuid', message: FAULTS.uuid });
/** An id, if there is any text. */
export const id = () => yup.string().matches(ID_PATTERN, { name: 'id', message: FAULTS.id });
/** A required id. */
export const idText = () => id().required();
/** An id, or null where there is none. */
export const maybeId = () => id().nullable().defined();
/** The place of a call: empty where nobody told it. */
export const placeText = () => yup.string().trim().max(120).defined();
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
  yup.string().test('instant', FAULTS.instant, (value) => value == null || isInstant(value));

/** A fault of a whole whose parts are each right; null when there is none. */
export type WholeCheck<T> = (given: T) => Fault | null;

/**
 * Untrusted input as its schema has it. A whole is judged once its parts are known to be right: a check of it may lean on them.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parsed<T>(schema: yup.Schema<T>, input: unknown, whole: WholeCheck<T> = () => null): T {
  const given = schema.validateSync(input, { abortEarly: false, strict: true });
  const fault = whole(given);
  if (fault) throw faultError(fault, given);
  return given;
}

/** Runs a check of a part; its findings carry the part's path. */
export function underPath(path: string, check: () => void): void {
  try {
    check();
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    throw new yup.ValidationError(
      faultsIn(error).map((fault) =>
        faultError({ ...fault, path: fault.path ? `${path}.${fault.path}` : path }, error.value),
      ),
    );
  }
}
