import * as yup from 'yup';
import { parsed } from './text.js';
import { JOBS_WANTED_MOST } from './wire.js';

export const JOBS_WANTED = yup
  .object({ ids: yup.array(yup.string().uuid().required()).min(1).max(JOBS_WANTED_MOST).required() })
  .noUnknown()
  .required();

/** Jobs that a device wants to hold, by their ids, from untrusted input. @throws yup.ValidationError */
export const parseJobsWanted = (input: unknown): readonly string[] => parsed(JOBS_WANTED, input).ids;
