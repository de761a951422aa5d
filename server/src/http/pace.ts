import type { RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { HttpProblem, sendProblem } from './problem.js';

const WINDOW_MS = 60_000;

/** Requests that one address may send in a minute: a hundred devices behind one address, each with its board, its job and a tap every two seconds. */
export const REQUESTS_PER_MINUTE = 12_000;
/** Of what takes the whole server for a while, imports and backups, this many a minute are enough for anybody. */
export const HEAVY_PER_MINUTE = 60;
/** And of sign-ins: a shift that changes with everybody at one desk, and no machine that tries PINs. */
export const SIGN_INS_PER_MINUTE = 30;

/**
 * Lets so many requests of one address through in a minute; the next gets the time to come again, and how much later. Nothing is lost by it: a
 * device keeps its taps, as it does where nobody answers.
 */
export const pace = (perMinute: number): RequestHandler =>
  rateLimit({
    windowMs: WINDOW_MS,
    limit: perMinute,
    // The draft after it has every request sign who it counts for, which costs as much as reading its body.
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    handler: (_request, response) => {
      sendProblem(response, new HttpProblem(429, 'tooMany'));
    },
  });
