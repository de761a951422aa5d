import * as yup from 'yup';

/** Words for what is found are short. */
const LONGEST_WORD = 40;

/** The finding of a check: one of its outcomes, or a figure. */
export const found = () =>
  yup
    .mixed<string | number>()
    .required()
    .test(
      'found',
      '${path} must be a word or a number',
      (value) => typeof value === 'number' || (typeof value === 'string' && value.length < LONGEST_WORD),
    )
    .meta({ jsonSchema: { type: ['string', 'number'] } });
