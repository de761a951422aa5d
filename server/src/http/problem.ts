import { STATUS_CODES } from 'node:http';
import { type Problem, PROBLEM_TYPE, ValidationError } from '@voltrek/contracts';
import { ANSWERS, NAMED_THINGS, REFUSAL_WORDS } from '@voltrek/contracts/words';
import type { Refusal } from '@voltrek/core/job';
import type { ErrorRequestHandler, Response } from 'express';
import { MulterError } from 'multer';
import type { Logger } from 'pino';
import { isDatabaseAway } from '../db/errors.js';

/** Something the caller must hear of, told as an RFC 9457 problem document. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly extra: Pick<Problem, 'refusal' | 'fields'> = {},
  ) {
    super(detail);
    this.name = 'HttpProblem';
  }
}

/** No such thing under that name. */
export const notFound = (what: keyof typeof NAMED_THINGS, named: string | undefined): HttpProblem =>
  new HttpProblem(404, ANSWERS.thereIsNo(`${NAMED_THINGS[what]} ${named}`));

/** The job's state does not allow the event. */
export const refused = (refusal: Refusal): HttpProblem =>
  new HttpProblem(409, REFUSAL_WORDS[refusal], { refusal });

/** Answers every error as a problem document; only what nobody foresaw is a 500, and it is logged. */
export function problemHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, { method, originalUrl }, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const problem = asProblem(error);
    if (problem.status >= 500)
      log.error({ err: error, method, path: originalUrl.split('?')[0] }, 'request failed');
    sendProblem(response, problem);
  };
}

export function sendProblem(response: Response, problem: HttpProblem): void {
  const body: Problem = {
    type: 'about:blank',
    title: STATUS_CODES[problem.status] ?? 'Error',
    status: problem.status,
    detail: problem.message,
    ...problem.extra,
  };
  response.status(problem.status).type(PROBLEM_TYPE).send(JSON.stringify(body));
}

function asProblem(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof ValidationError) {
    const inner = error.inner.length > 0 ? error.inner : [error];
    const fields = inner.map((e) => ({ path: e.path ?? '', message: e.message }));
    return new HttpProblem(422, ANSWERS.fieldsAtFault, { fields });
  }
  if (error instanceof MulterError)
    return error.code === 'LIMIT_FILE_SIZE'
      ? new HttpProblem(413, ANSWERS.fileTooLarge)
      : new HttpProblem(400, ANSWERS.sendOneFile);
  // What a form's reader says of a form that is cut off or is none carries no status.
  if (error instanceof Error && FORM_FAULTS.test(error.message))
    return new HttpProblem(400, ANSWERS.formCutOff);
  // Errors that Express and its body parser raise carry the status they mean.
  if (error instanceof Error && 'status' in error && typeof error.status === 'number' && error.status < 500) {
    return new HttpProblem(error.status, PARSER_WORDS[error.status] ?? ANSWERS.requestUnreadable);
  }
  if (isDatabaseAway(error)) return new HttpProblem(503, ANSWERS.databaseAway);
  return new HttpProblem(500, ANSWERS.wentWrong);
}

const FORM_FAULTS =
  /^(Unexpected end of (form|file)|Malformed (part header|content type)|Multipart: Boundary not found|Unsupported content type)/;

const PARSER_WORDS: Partial<Record<number, string>> = {
  400: ANSWERS.notWellFormed,
  413: ANSWERS.requestTooLarge,
  415: ANSWERS.sendJson,
};
