import { randomUUID } from 'node:crypto';
import { STATUS_CODES } from 'node:http';
import { faultsIn, type Problem, PROBLEM_TYPE, problemType, ValidationError } from '@voltrek/contracts';
import {
  type Answer,
  ANSWERS,
  type AnswerParams,
  type NAMED_THINGS,
  REFUSAL_WORDS,
} from '@voltrek/contracts/words';
import type { Refusal } from '@voltrek/core/job';
import type { ErrorRequestHandler, RequestHandler, Response } from 'express';
import { MulterError } from 'multer';
import type { Logger } from 'pino';
import { isDatabaseAway } from '../db/errors.js';

/** Parts of a problem beside its code. */
interface ProblemParts<C extends Answer> {
  readonly params?: AnswerParams<C>;
  /** Stands in for the words of the code where another part of the program has better ones. */
  readonly detail?: string;
  readonly refusal?: Refusal;
  readonly fields?: Problem['fields'];
  readonly headers?: Readonly<Record<string, string>>;
}

/** A failure for the caller, sent as an RFC 9457 problem document. */
export class HttpProblem<C extends Answer = Answer> extends Error {
  constructor(
    readonly status: number,
    readonly code: C,
    readonly parts: ProblemParts<C> = {},
  ) {
    const words = ANSWERS[code] as string | ((...params: readonly unknown[]) => string);
    super(parts.detail ?? (typeof words === 'string' ? words : words(...(parts.params ?? []))));
    this.name = 'HttpProblem';
  }
}

/** No such thing under that name. */
export const notFound = (what: keyof typeof NAMED_THINGS, named = ''): HttpProblem<'thereIsNo'> =>
  new HttpProblem(404, 'thereIsNo', { params: [what, named] });

/** The job's state does not allow the event. */
export const refused = (refusal: Refusal): HttpProblem<'refused'> =>
  new HttpProblem(409, 'refused', { refusal, detail: REFUSAL_WORDS[refusal] });

/** Names each request: in its answer, in the problem that it comes to, and in the log. */
export const nameRequest: RequestHandler = (request, response, next) => {
  request.id = randomUUID();
  response.set('X-Request-Id', request.id);
  next();
};

/** Answers every error as a problem document; only what nobody foresaw is a 500, and it is logged. */
export function problemHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, { id, method, originalUrl }, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const problem = asProblem(error);
    if (problem.status >= 500)
      log.error({ err: error, requestId: id, method, path: originalUrl.split('?')[0] }, 'request failed');
    sendProblem(response, problem);
  };
}

export function sendProblem(response: Response, { status, code, message, parts }: HttpProblem): void {
  const { params, refusal, fields, headers = {} } = parts;
  const requestId = response.get('X-Request-Id');
  const body: Problem = {
    type: problemType(code),
    title: STATUS_CODES[status] ?? 'Error',
    status,
    detail: message,
    code,
    ...(params && { params }),
    ...(requestId !== undefined && { requestId }),
    ...(refusal && { refusal }),
    ...(fields && { fields }),
  };
  response.status(status).set(headers).type(PROBLEM_TYPE).send(JSON.stringify(body));
}

function asProblem(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error as HttpProblem;
  if (error instanceof ValidationError) {
    return new HttpProblem(422, 'fieldsAtFault', { fields: faultsIn(error) });
  }
  if (error instanceof MulterError)
    return error.code === 'LIMIT_FILE_SIZE'
      ? new HttpProblem(413, 'fileTooLarge')
      : new HttpProblem(400, 'sendOneFile');
  // Errors of the form reader about a form that is cut off, or is none, carry no status.
  if (error instanceof Error && FORM_FAULTS.test(error.message)) return new HttpProblem(400, 'formCutOff');
  // Errors that Express and its body parser raise carry the status they mean.
  if (error instanceof Error && 'status' in error && typeof error.status === 'number' && error.status < 500) {
    return new HttpProblem(error.status, PARSER_CODES[error.status] ?? 'requestUnreadable');
  }
  if (isDatabaseAway(error)) return new HttpProblem(503, 'databaseAway');
  return new HttpProblem(500, 'wentWrong');
}

const FORM_FAULTS =
  /^(Unexpected end of (form|file)|Malformed (part header|content type)|Multipart: Boundary not found|Unsupported content type)/;

const PARSER_CODES: Partial<Record<number, Answer>> = {
  400: 'notWellFormed',
  413: 'requestTooLarge',
  415: 'sendJson',
};
