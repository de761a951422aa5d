import { convertSchema } from '@sodaru/yup-to-json-schema';
import { CALC_INPUTS, CALC_OUTPUTS, CALC_VERBS, type CalcVerb } from '@voltrek/contracts/calc';
import { faultsIn, ValidationError } from '@voltrek/contracts';
import { RUNS } from './run.js';

/** The output of the command line and its exit code: 0 for done, 2 for a wrong call or input. */
export interface CalcAnswer {
  readonly out: string;
  readonly err: string;
  readonly code: 0 | 2;
}

const USAGE = `calc: one of ${CALC_VERBS.join(', ')}, reading JSON on standard input; or: schema VERB`;

/**
 * Answers one call of the command line.
 *
 * @param args what follows `calc --`
 * @param readInput reads all of standard input; not called for `schema`
 */
export function answer(args: readonly string[], readInput: () => string): CalcAnswer {
  const [verb, of] = args;
  if (verb === 'schema') return isVerb(of) ? schemaOf(of) : wrong(USAGE);
  if (!isVerb(verb) || args.length > 1) return wrong(USAGE);
  let input: unknown;
  try {
    input = JSON.parse(readInput());
  } catch (error) {
    return wrong(`input: not JSON: ${error instanceof Error ? error.message : String(error)}`);
  }
  try {
    return done(run(verb, input));
  } catch (error) {
    if (error instanceof ValidationError) return wrong(faults(error));
    // The core refuses what a schema cannot know, such as a charge that must rise.
    if (error instanceof Error) return wrong(error.message);
    throw error;
  }
}

function isVerb(word: string | undefined): word is CalcVerb {
  return CALC_VERBS.some((verb) => verb === word);
}

function run(verb: CalcVerb, input: unknown): unknown {
  const parsed = CALC_INPUTS[verb].validateSync(input, { abortEarly: false, strict: true });
  return (RUNS[verb] as (input: unknown) => unknown)(parsed);
}

function faults(error: ValidationError): string {
  return faultsIn(error)
    .map(({ path, message }) => `${path ? `${path}: ` : ''}${message}`)
    .join('\n');
}

function schemaOf(verb: CalcVerb): CalcAnswer {
  const $schema = 'https://json-schema.org/draft/2020-12/schema';
  return done({
    $schema,
    title: verb,
    input: convertSchema(CALC_INPUTS[verb]),
    output: convertSchema(CALC_OUTPUTS[verb]),
  });
}

const done = (value: unknown): CalcAnswer => ({
  out: `${JSON.stringify(value, null, 2)}\n`,
  err: '',
  code: 0,
});
const wrong = (why: string): CalcAnswer => ({ out: '', err: `${why}\n`, code: 2 });
