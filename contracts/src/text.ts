import * as yup from 'yup';

/** Ids are short and plain, so that they are safe in an address. */
export const ID_PATTERN = /^[a-z0-9][a-z0-9-]{0,63}$/;

/** An id as devices make them. */
export const UUID_PATTERN = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** A required id. */
export const idText = () =>
  yup.string().matches(ID_PATTERN, '${path} must be lower-case letters, digits and dashes').required();
/** Required text of at most `max` characters. */
export const shortText = (max: number) => yup.string().trim().min(1).max(max).required();
